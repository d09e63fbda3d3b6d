"""What the demo jobs are made with: a small workshop, a shelf with offcuts, two made-up shops."""

from __future__ import annotations

from wobble.core.job import (
    Coats,
    Finish,
    LengthStock,
    Machine,
    Offer,
    Pack,
    SheetStock,
    Shop,
    Workshop,
)

PLY, THIN, OFFCUT = "ply-18", "ply-6", "offcut-18"


def demo_workshop() -> Workshop:
    """Return a workshop whose plywood measures less than it is sold as, with one offcut on the shelf."""
    return Workshop(
        stock=(
            SheetStock(
                id=PLY,
                name="Birch plywood 18",
                thick_mm=18.0,
                measured_mm=17.6,
                long_mm=2500.0,
                wide_mm=1250.0,
                price=78.0,
            ),
            SheetStock(
                id=OFFCUT,
                name="Offcut of birch plywood",
                thick_mm=18.0,
                measured_mm=17.6,
                long_mm=1130.0,
                wide_mm=620.0,
                at_hand=1,
            ),
            SheetStock(
                id="ply-19", name="Poplar plywood 19", thick_mm=19.0, long_mm=2500.0, wide_mm=1250.0, price=52.0
            ),
            SheetStock(id="ply-15", name="Birch plywood 15", thick_mm=15.0, long_mm=2500.0, wide_mm=1250.0, price=64.0),
            SheetStock(id=THIN, name="Poplar plywood 6", thick_mm=6.0, long_mm=2500.0, wide_mm=1250.0, price=26.0),
            LengthStock(
                id="batten-38", name="Planed batten 38 × 60", thick_mm=38.0, wide_mm=60.0, long_mm=3000.0, price=9.5
            ),
            LengthStock(
                id="stud-45", name="Framing timber 45 × 70", thick_mm=45.0, wide_mm=70.0, long_mm=3000.0, price=8.2
            ),
            Pack(id="screws-50", name="box of 200", of="screws", size_mm=50.0, holds=200.0, price=9.0),
            Pack(id="screws-80", name="box of 50", of="screws", size_mm=80.0, holds=50.0, price=7.5),
            Pack(id="hinges", name="pair", of="hinges", holds=2.0, price=4.2),
            Pack(id="slides-500", name="pair", of="slides", size_mm=500.0, holds=1.0, price=14.0),
            Pack(id="pins", name="bag of 20", of="shelf pins", size_mm=5.0, holds=20.0, price=3.0),
            Pack(id="band", name="roll of 10 m", of="banding", holds=10.0, price=6.0),
            Pack(id="glue", name="bottle", of="glue", holds=0.75, at_hand=1, price=8.0),
            Finish(
                id="primer", name="Wood primer", kind="primer", litres=1.0, m2_per_litre=10.0, dries_h=6.0, price=18.0
            ),
            Finish(
                id="paint",
                name="Satin paint, grey green",
                kind="paint",
                litres=2.5,
                m2_per_litre=12.0,
                dries_h=8.0,
                price=46.0,
            ),
        ),
        shops=(
            Shop(
                id="yard",
                name="Timber yard at the mill",
                trip=12.0,
                prices=(
                    Offer(item=PLY, price=74.0),
                    Offer(item="ply-19", price=52.0),
                    Offer(item="ply-15", price=61.0),
                    Offer(item=THIN, price=24.0),
                    Offer(item="batten-38", price=9.5),
                    Offer(item="stud-45", price=8.2),
                    Offer(item="glue", price=8.0),
                ),
            ),
            Shop(
                id="store",
                name="Builders' store by the bridge",
                trip=5.0,
                prices=(
                    Offer(item=PLY, price=86.0),
                    Offer(item=THIN, price=31.0),
                    Offer(item="batten-38", price=11.0),
                    Offer(item="screws-50", price=9.0),
                    Offer(item="screws-80", price=7.5),
                    Offer(item="hinges", price=4.2),
                    Offer(item="slides-500", price=14.0),
                    Offer(item="pins", price=3.0),
                    Offer(item="band", price=6.0),
                    Offer(item="primer", price=18.0),
                    Offer(item="paint", price=46.0),
                ),
            ),
        ),
        machines=(
            Machine(id="track", name="Track saw", kind="track saw", thick_mm=55.0),
            Machine(id="table", name="Small table saw", kind="table saw", rip_mm=600.0, thick_mm=70.0, bed_mm=1600.0),
            Machine(id="mitre", name="Mitre saw", kind="mitre saw", cross_mm=300.0, thick_mm=70.0),
            Machine(id="router", name="Router", kind="router"),
            Machine(id="drill", name="Cordless drill", kind="drill"),
        ),
        coats=(Coats(finish="primer", number=1), Coats(finish="paint", number=2)),
        carries_mm=(2000.0, 1100.0),
    )
