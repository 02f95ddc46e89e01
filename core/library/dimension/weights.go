package dimension

// keyboard is fitted (see core/reading/load/fit_test.go).
var keyboard = []Dimension{
	{Speed, 2, 1.7, 0.67}, {Jumps, 8, 0, 0.75}, {Span, 5, 0, 0.6}, {Density, 4, 1.7, 0.57}, {Independence, 2, 0, 0.15}, {Voices, 1, 0, 0.37}, {Rhythm, 1, 0, 0.21},
	{Variety, 4, 2, 0.5}, {Shifts, 0.5, 0, 0.3}, {Signs, 2, 1, 0.68}, {Endurance, 16, 4, 0.38}, {Ornament, 1, 0, 0.5}, {BlackKeys, 1, 0, 0.52},
	{Pedal, 0.5, 0, 0.4},
}

// The others are by analogy: what the families share has about the weight that it has on a keyboard.
var (
	bowed = []Dimension{
		{Speed, 2, 1.7, 0.9}, {Shifts, 0.2, 0, 0.8}, {Crossings, 0.7, 0, 0.5}, {Span, 2, 0, 0.4}, {Density, 4, 1.7, 0.6}, {Bowing, 1, 0, 0.5}, {Rhythm, 1, 0, 0.4},
		{Variety, 4, 2, 0.5}, {Signs, 2, 1, 0.4}, {Endurance, 16, 4, 0.2}, {Ornament, 1, 0, 0.2},
	}
	plucked = []Dimension{
		{Speed, 2, 1.7, 0.9}, {Shifts, 0.2, 0, 0.7}, {Crossings, 0.7, 0, 0.4}, {Span, 2, 0, 0.5}, {Density, 4, 1.7, 0.8}, {Voices, 1, 0, 0.5}, {Rhythm, 1, 0, 0.4},
		{Variety, 4, 2, 0.5}, {Signs, 2, 1, 0.3}, {Endurance, 16, 4, 0.2}, {Ornament, 1, 0, 0.2},
	}
	single = []Dimension{
		{Speed, 2, 1.7, 1}, {Jumps, 4, 0, 0.6}, {Rhythm, 1, 0, 0.5}, {Variety, 4, 2, 0.6}, {Signs, 2, 1, 0.5}, {Endurance, 8, 4, 0.4}, {Ornament, 1, 0, 0.3},
	}
	percussion = []Dimension{
		{Speed, 2, 1.7, 1}, {Density, 4, 1.7, 0.6}, {Rhythm, 1, 0, 0.8}, {Variety, 4, 2, 0.3}, {Endurance, 16, 4, 0.3}, {Ornament, 1, 0, 0.4},
	}
)
