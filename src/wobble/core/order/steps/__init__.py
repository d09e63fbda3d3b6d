"""The steps of one place: what they are made from, how long they take, and the steps themselves."""
