"""What must come before what: by room, by trade, by the user's word; and one order that keeps it."""
