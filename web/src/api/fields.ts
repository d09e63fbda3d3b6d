/** What forms need to know of the core. Written by `./run api`; never by hand. */
export const SURE = 0.95 as const;
export const SURE_TO_BITE = 0.9 as const;
export const OPTIONS = {
  "unitKinds": [
    "base",
    "drawers",
    "tall",
    "wall",
    "bench",
    "shelves",
    "shelf",
    "top",
    "panel",
    "face frame",
    "base frame",
    "rack",
    "platform",
    "boarding",
    "trim",
    "moulding",
    "batten wall",
    "peg wall",
    "cushion",
    "stored"
  ],
  "contents": [
    "not said",
    "nothing",
    "crockery",
    "books",
    "files",
    "tools",
    "bedding",
    "clothes",
    "tins",
    "a person sitting",
    "a person standing"
  ],
  "opens": [
    "nothing",
    "door hinged left",
    "door hinged right",
    "pair of doors",
    "drawers"
  ],
  "materials": [
    "particleboard",
    "mdf",
    "plywood",
    "pine",
    "douglas fir",
    "red oak",
    "ash",
    "beech",
    "maple",
    "walnut",
    "cherry"
  ],
  "obstacleKinds": [
    "outlet",
    "switch",
    "wire",
    "pipe",
    "valve",
    "spout",
    "vent",
    "radiator",
    "window board",
    "casing",
    "skirting",
    "trim",
    "column",
    "bulkhead",
    "wheel arch"
  ],
  "treatments": [
    "keep clear",
    "notch",
    "bridge",
    "access hole",
    "duct",
    "remove",
    "move by a licensed trade"
  ],
  "backingKinds": [
    "wood studs",
    "metal studs",
    "masonry",
    "lath and plaster",
    "ribs and battens"
  ],
  "woods": [
    "spruce-pine-fir",
    "hem-fir",
    "douglas fir",
    "southern pine",
    "oak",
    "plywood"
  ],
  "serviceRules": [
    "all round",
    "up and down",
    "up, down and sideways",
    "also along corners and ceiling"
  ],
  "runs": [
    "not known",
    "along",
    "out"
  ],
  "foundBy": [
    "scanner",
    "magnet",
    "knock",
    "trial hole",
    "nail seen"
  ],
  "sees": [
    "centre",
    "left edge",
    "right edge",
    "screw",
    "hit",
    "miss",
    "something else"
  ],
  "splits": [
    "as drawn",
    "equal",
    "none at the left",
    "none at the right",
    "centred"
  ],
  "hinges": [
    "not chosen",
    "cup",
    "butt",
    "piano",
    "pivot"
  ],
  "hangs": [
    "left",
    "right",
    "pair",
    "up",
    "down"
  ],
  "lies": [
    "inset",
    "half overlay",
    "full overlay"
  ],
  "slideKinds": [
    "side",
    "under",
    "wood"
  ],
  "backs": [
    "none",
    "applied",
    "rebated",
    "grooved"
  ],
  "holeKinds": [
    "cable hole",
    "hatch",
    "lid",
    "cut-out"
  ],
  "holesInside": [
    "top",
    "back",
    "left side",
    "right side",
    "front"
  ],
  "members": [
    "covering",
    "base",
    "box",
    "facing",
    "board",
    "cushion"
  ],
  "fastenedTo": [
    "back",
    "left",
    "right",
    "ceiling",
    "floor",
    "neighbours",
    "under it",
    "nothing"
  ],
  "sideMethods": [
    "fillers",
    "face frame first",
    "end panel",
    "cover moulding",
    "flexible filler",
    "shadow gap"
  ],
  "packOfs": [
    "screws",
    "anchors",
    "hinges",
    "slides",
    "shelf pins",
    "handles",
    "shims",
    "banding",
    "glue",
    "sandpaper",
    "foam",
    "cloth",
    "film"
  ],
  "finishKinds": [
    "knot sealer",
    "damp primer",
    "primer",
    "paint",
    "varnish",
    "oil"
  ],
  "machineKinds": [
    "table saw",
    "track saw",
    "hand-held saw",
    "mitre saw",
    "band saw",
    "router",
    "planer",
    "drill press",
    "drill",
    "shop"
  ],
  "aims": [
    "fewest sheets",
    "fewest settings",
    "fewest metres"
  ],
  "weekdays": [
    "mon",
    "tue",
    "wed",
    "thu",
    "fri",
    "sat",
    "sun"
  ],
  "airs": [
    "warm and dry",
    "cool",
    "cold or damp"
  ],
  "finishings": [
    "before assembly",
    "before setting",
    "after setting"
  ],
  "skills": [
    "sawing",
    "lifting",
    "fixing",
    "finishing",
    "measuring"
  ],
  "wheres": [
    "anywhere",
    "workshop",
    "place"
  ]
} as const;
export const DEFAULTS = {
  "walls": {
    "kind": "wood studs",
    "lining_mm": 12.5,
    "stud_mm": 45.0,
    "deep_mm": 90.0,
    "wood": "spruce-pine-fir",
    "steel_mm": 0.6,
    "anchor": null,
    "runs": "not known",
    "clear_mm": 50.0,
    "rule": "up, down and sideways",
    "deepest_mm": null,
    "driving_g": 0.0
  },
  "ceiling": {
    "kind": "wood studs",
    "lining_mm": 12.5,
    "stud_mm": 45.0,
    "deep_mm": 140.0,
    "wood": "spruce-pine-fir",
    "steel_mm": 0.6,
    "anchor": null,
    "runs": "not known",
    "clear_mm": 50.0,
    "rule": "up, down and sideways",
    "deepest_mm": null,
    "driving_g": 0.0
  },
  "floor": {
    "kind": "wood studs",
    "lining_mm": 18.0,
    "stud_mm": 45.0,
    "deep_mm": 140.0,
    "wood": "spruce-pine-fir",
    "steel_mm": 0.6,
    "anchor": null,
    "runs": "not known",
    "clear_mm": 50.0,
    "rule": "up, down and sideways",
    "deepest_mm": null,
    "driving_g": 0.0
  },
  "anchor": {
    "name": "plug and screw",
    "pull_n": 300.0,
    "shear_n": 500.0,
    "embed_mm": 50.0,
    "drill_mm": 8.0,
    "edge_mm": 60.0
  },
  "sheet": {
    "sold_as": "sheet",
    "id": "x",
    "name": "Sheet",
    "material": "plywood",
    "thick_mm": 18.0,
    "measured_mm": null,
    "long_mm": 2440.0,
    "wide_mm": 1220.0,
    "at_hand": 0,
    "price": null,
    "grain": true
  },
  "length": {
    "sold_as": "length",
    "id": "x",
    "name": "Length",
    "material": "pine",
    "thick_mm": 20.0,
    "wide_mm": 95.0,
    "long_mm": 2400.0,
    "at_hand": 0,
    "price": null,
    "defects": []
  },
  "pack": {
    "sold_as": "pack",
    "id": "x",
    "name": "Pack",
    "of": "screws",
    "size_mm": 0.0,
    "holds": 100.0,
    "at_hand": 0,
    "price": null
  },
  "tin": {
    "sold_as": "tin",
    "id": "x",
    "name": "Tin",
    "kind": "paint",
    "litres": 1.0,
    "m2_per_litre": 12.0,
    "dries_h": 6.0,
    "at_hand": 0,
    "price": null
  },
  "machine": {
    "id": "x",
    "name": "Machine",
    "kind": "table saw",
    "rip_mm": 0.0,
    "cross_mm": 0.0,
    "thick_mm": 0.0,
    "bed_mm": 0.0,
    "angle_deg": 45.0
  },
  "closing": {
    "method": "fillers",
    "split": "as drawn",
    "centre_mm": null,
    "clearance_mm": 3.0,
    "least_filler_mm": 20.0,
    "board_mm": 19.0,
    "moulding_mm": [
      25.0,
      8.0
    ],
    "shadow_mm": 10.0,
    "mullion_mm": 40.0
  },
  "construction": {
    "id": "plain",
    "name": "Sides through, back in a groove",
    "board_mm": 18.0,
    "sides": "through",
    "back": "grooved",
    "back_mm": 6.0,
    "groove_in_mm": 12.0,
    "face_frame": null,
    "top": "whole",
    "stretcher_mm": 100.0,
    "material": "plywood",
    "board": null,
    "front_mm": 18.0,
    "drawer_mm": 15.0,
    "drawer_bottom_mm": 6.0,
    "joined": "screws",
    "banded": true,
    "band_mm": 0.0,
    "pin_pitch_mm": 32.0,
    "handle_apart_mm": null,
    "handle_in_mm": 40.0
  },
  "door": {
    "hangs": "left",
    "lies": "full overlay",
    "hinge": "not chosen",
    "gap_mm": 2.0
  },
  "shelved": {
    "fill": "shelves",
    "count": 1,
    "held": "pins",
    "thick_mm": 18.0
  },
  "drawers": {
    "fill": "drawers",
    "count": 3,
    "heights_mm": [],
    "slides": {
      "kind": "side",
      "side_mm": 12.7,
      "over_mm": 15.0,
      "under_mm": 10.0
    }
  },
  "pullOut": {
    "fill": "pull-out",
    "thick_mm": 18.0,
    "slides": {
      "kind": "side",
      "side_mm": 12.7,
      "over_mm": 15.0,
      "under_mm": 10.0
    }
  },
  "cell": {
    "size_mm": null,
    "by_contents": false,
    "share": 1.0,
    "fill": {
      "fill": "nothing"
    },
    "door": null,
    "holds": []
  },
  "board": {
    "material": "particleboard",
    "moisture_range_percent": 4.0,
    "load_kg_per_m": 30.0,
    "edge": null,
    "stock_mm": 4100.0
  },
  "framing": {
    "body": "framing",
    "narrow_mm": 45.0,
    "wide_mm": 70.0,
    "stands": "on edge",
    "material": "pine",
    "most_apart_mm": 400.0,
    "across": true,
    "deck_mm": 18.0,
    "front_back_mm": 0.0,
    "rear_off_mm": 0.0,
    "fascia_mm": 0.0,
    "load_kg_per_m2": 200.0,
    "loose": false
  },
  "boarding": {
    "body": "boarding",
    "runs": "along",
    "board_mm": 120.0,
    "thick_mm": 15.0,
    "gap_mm": 3.0,
    "cap_mm": 0.0
  },
  "trim": {
    "body": "trim",
    "piece_mm": 60.0,
    "thick_mm": 12.0,
    "most_apart_mm": 450.0,
    "seams_mm": []
  },
  "moulding": {
    "body": "moulding",
    "thick_mm": 15.0,
    "spring_deg": 0.0,
    "left_mm": 0.0,
    "right_mm": 0.0,
    "inside": "coped",
    "stock_mm": 2400.0,
    "round_mm": 0.0
  },
  "hangingWall": {
    "body": "hanging wall",
    "by": "battens",
    "pitch_mm": 150.0,
    "member_mm": 70.0,
    "thick_mm": 18.0,
    "behind_mm": 0.0,
    "hangs": []
  },
  "sessions": {
    "people": [],
    "habits": [],
    "one_offs": [],
    "off": [],
    "visits": [],
    "deadlines": [],
    "own": [],
    "dropped": [],
    "turned": [],
    "air": "warm and dry",
    "finishing": "before setting",
    "workshop": "at the place",
    "machines_away": [],
    "trade_days": 7
  },
  "habit": {
    "id": "x",
    "name": "Evening",
    "days": [
      "tue"
    ],
    "starts": "19:00",
    "minutes": 120,
    "people": [],
    "machines": [],
    "where": "anywhere"
  },
  "oneOff": {
    "id": "x",
    "name": "Long day",
    "on": "2026-01-03",
    "starts": "09:00",
    "minutes": 240,
    "people": [],
    "machines": [],
    "where": "anywhere"
  },
  "visit": {
    "id": "x",
    "name": "Electrician",
    "on": "2026-01-05",
    "starts": "08:00",
    "minutes": 120,
    "does": [],
    "before": []
  },
  "ownStep": {
    "id": "x",
    "name": "Step",
    "minutes": 30,
    "people": 1,
    "after": [],
    "before": [],
    "rests_h": 0.0,
    "where": "place",
    "why": ""
  }
} as const;
export const STANDING = {
  "shims": {
    "on": "shims"
  },
  "toe-kick box": {
    "on": "toe-kick box",
    "height_mm": 100.0
  },
  "base frame": {
    "on": "base frame",
    "height_mm": 80.0
  },
  "feet": {
    "on": "feet",
    "pitch_mm": 1.5,
    "least_mm": 80.0,
    "most_mm": 120.0,
    "now_mm": [
      100.0
    ]
  },
  "legs": {
    "on": "legs",
    "long_mm": 720.0,
    "finished_mm": 680.0
  },
  "cleats": {
    "on": "cleats",
    "thick_mm": 20.0,
    "high_mm": 40.0
  },
  "hung": {
    "on": "hung",
    "by": "rail",
    "thick_mm": 18.0
  }
} as const;
export const LIMITS = {
  "Unit": {
    "x_mm": {
      "least": 0,
      "most": 100000
    },
    "width_mm": {
      "least": 0.001,
      "most": 100000
    },
    "depth_mm": {
      "least": 0.001,
      "most": 100000
    },
    "height_mm": {
      "least": 0.001,
      "most": 100000
    },
    "toe_recess_mm": {
      "least": 0,
      "most": 100000
    },
    "support_inset_mm": {
      "least": 0,
      "most": 100000
    },
    "over_base_mm": {
      "least": -100000,
      "most": 100000
    },
    "out_mm": {
      "least": 0,
      "most": 100000
    },
    "weight_kg": {
      "least": 0,
      "most": 100000
    },
    "feet_in_mm": {
      "least": 0,
      "most": 100000
    }
  },
  "Board": {
    "moisture_range_percent": {
      "least": 0,
      "most": 20
    },
    "load_kg_per_m": {
      "least": 0,
      "most": 100000
    },
    "stock_mm": {
      "least": 0.001,
      "most": 100000
    }
  },
  "Backing": {
    "lining_mm": {
      "least": 0,
      "most": 100000
    },
    "stud_mm": {
      "least": 0.001,
      "most": 100000
    },
    "deep_mm": {
      "least": 0.001,
      "most": 100000
    },
    "steel_mm": {
      "above": 0,
      "most": 5
    },
    "clear_mm": {
      "least": 0.001,
      "most": 100000
    },
    "deepest_mm": {
      "least": 0.001,
      "most": 100000
    },
    "driving_g": {
      "least": 0,
      "most": 20
    }
  },
  "Anchor": {
    "pull_n": {
      "least": 0.001,
      "most": 100000
    },
    "shear_n": {
      "least": 0.001,
      "most": 100000
    },
    "embed_mm": {
      "least": 0.001,
      "most": 100000
    },
    "drill_mm": {
      "least": 0.001,
      "most": 100000
    },
    "edge_mm": {
      "least": 0.001,
      "most": 100000
    }
  },
  "Closing": {
    "centre_mm": {
      "least": -100000,
      "most": 100000
    },
    "clearance_mm": {
      "least": 0,
      "most": 100000
    },
    "least_filler_mm": {
      "least": 0,
      "most": 100000
    },
    "board_mm": {
      "least": 0.001,
      "most": 100000
    },
    "shadow_mm": {
      "least": 0.001,
      "most": 100000
    },
    "mullion_mm": {
      "least": 0.001,
      "most": 100000
    }
  },
  "Place": {
    "width_mm": {
      "least": 0.001,
      "most": 100000
    },
    "depth_mm": {
      "least": 0.001,
      "most": 100000
    },
    "height_mm": {
      "least": 0.001,
      "most": 100000
    }
  },
  "Obstacle": {
    "proud_mm": {
      "least": 0,
      "most": 100000
    }
  }
} as const;
export const CURVED_EDGES = {
  "panel": [
    "upper",
    "lower"
  ],
  "top": [
    "front"
  ],
  "shelf": [
    "front"
  ]
} as const;
export const BODIES = {
  "base frame": "framing",
  "platform": "framing",
  "rack": "framing",
  "boarding": "boarding",
  "trim": "trim",
  "moulding": "moulding",
  "batten wall": "hanging wall",
  "peg wall": "hanging wall"
} as const;
