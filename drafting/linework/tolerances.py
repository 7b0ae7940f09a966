"""The tolerances of drawing, each with its reason. Millimetres of the model unless said otherwise."""

#: A point this near to a face's border counts as behind it, so that no light leaks between neighbours.
COVER = 0.005
#: A face must be nearer than an edge by more than this to hide it, so that touching faces do not hide by
#: chance.
DEPTH = 0.1
#: Hidden stretches with less than this between them are one: what shows between is rounding.
GAP = 0.05
#: A visible stretch shorter than this is a speck, unless it is a whole edge.
SPECK = 0.5
#: How far beside an edge it is asked whether its face goes on there: clear of rounding, far below any line's
#: width.
BESIDE = 0.3
#: How far beside an outline its background is looked at: past the joints that are left round windows and
#: boards.
BACKGROUND = 15.0
#: A face whose normal has less than this towards the viewer is seen edge on and covers nothing.
EDGE_ON = 1e-6
#: Two normals closer than this (1 - cosine) are one direction.
ONE_DIRECTION = 1e-6
#: An outline stands against "nothing near" when what is behind it is further off than this: about a room's
#: half depth.
PROFILE_CLEARANCE = 1500.0
#: A surface whose normal has less than this towards the viewer is seen nearly edge on: each facet of a wide
#: one folds
#: over the next, and its outline is worth a line only where it ends.
GRAZING = 0.1
#: So far behind such an outline the surface may carry on, mm: the ground round a house, as far as a plot
#: reaches.
CARRIES_ON = 30_000.0
#: Lines nearer to each other than this are one line: a fiftieth of a millimetre is nothing at any building
#: scale.
SAME_LINE = 0.02
#: Lines of one role that run beside each other (sine) nearer than this are one: two things that touch, or a
#: joint that no drawing shows.
NEAR_LINE, ALONG = 0.2, 0.05
#: Ends nearer than this meet.
SAME_POINT = 0.01
#: A line shorter than this that joins no other is dropped: 0.05 mm on paper at 1:20.
SHORTEST = 1.0
#: A corner this far behind the cutting plane still lies in it, and what lies in it counts as cut: kernels
#: round.
IN_PLANE = 0.001
#: Grid that cut regions are computed on, so that shared borders meet exactly.
REGION_GRID = 0.001
#: A line that changes role or band within this of its end does not change there.
SPLIT = 0.5
