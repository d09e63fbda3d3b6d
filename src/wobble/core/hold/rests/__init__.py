"""What units rest on or hook over: ledgers, battens, cleats, furring, grids."""
