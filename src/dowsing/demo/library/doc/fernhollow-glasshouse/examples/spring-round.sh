# the round of a spring morning
vent --open=30 4
mulch --kind=straw 2 4
