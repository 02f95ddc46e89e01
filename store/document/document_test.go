package document

import (
	"encoding/json"
	"reflect"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"patientladder/core/planning/lessonplan"
	"patientladder/core/planning/week"
	"patientladder/core/student/studentlog"
)

// fill sets every field of a value to something, so that one that is not kept is noticed.
func fill(v reflect.Value) {
	if v.Type() == reflect.TypeFor[time.Time]() {
		v.Set(reflect.ValueOf(time.Date(2026, 5, 4, 15, 30, 0, 0, time.UTC)))
		return
	}
	switch v.Kind() {
	case reflect.Bool:
		v.SetBool(true)
	case reflect.Int, reflect.Int64:
		v.SetInt(7)
	case reflect.Float64:
		v.SetFloat(2.5)
	case reflect.String:
		v.SetString("kept")
	case reflect.Pointer:
		v.Set(reflect.New(v.Type().Elem()))
		fill(v.Elem())
	case reflect.Slice:
		v.Set(reflect.MakeSlice(v.Type(), 2, 2))
		for i := range v.Len() {
			fill(v.Index(i))
		}
	case reflect.Map:
		v.Set(reflect.MakeMap(v.Type()))
		key, value := reflect.New(v.Type().Key()).Elem(), reflect.New(v.Type().Elem()).Elem()
		fill(key)
		fill(value)
		v.SetMapIndex(key, value)
	case reflect.Struct:
		for i := range v.NumField() {
			if v.Type().Field(i).IsExported() {
				fill(v.Field(i))
			}
		}
	default:
		panic("a document holds no " + v.Kind().String())
	}
}

func kept[T any](t *testing.T, encode func(T) ([]byte, error), decode func([]byte) (T, error)) {
	t.Helper()
	var full, empty T
	fill(reflect.ValueOf(&full).Elem())
	data, err := encode(full)
	require.NoError(t, err)
	back, err := decode(data)
	require.NoError(t, err)
	require.Equal(t, full, back, "every field comes back")
	again, err := encode(back)
	require.NoError(t, err)
	require.JSONEq(t, string(data), string(again))
	data, err = encode(empty)
	require.NoError(t, err)
	_, err = decode(data)
	require.NoError(t, err)
	_, err = decode(
		[]byte(
			`{"name": 3, "days": 3, "pins": 3, "segments": 3, "at": 3, "mats": 3, "options": 3, "faults": 3, "edits": 3, "lines": 3, "factors": 3}`,
		),
	)
	require.Error(t, err)
}

func TestEveryFieldOfADocumentComesBack(t *testing.T) {
	t.Run("the plan of a lesson", func(t *testing.T) { kept(t, EncodePlan, DecodePlan) })
	t.Run("what was set by hand in it", func(t *testing.T) { kept(t, EncodePlanHand, DecodePlanHand) })
	t.Run("a published week", func(t *testing.T) { kept(t, EncodeWeek, DecodeWeek) })
	t.Run("what was set by hand in it", func(t *testing.T) { kept(t, EncodeWeekHand, DecodeWeekHand) })
	t.Run("an activity", func(t *testing.T) { kept(t, EncodeActivity, DecodeActivity) })
	t.Run("an activity of a first meeting", func(t *testing.T) { kept(t, EncodeMeetingActivity, DecodeMeetingActivity) })
	t.Run("the form of an exercise", func(t *testing.T) { kept(t, EncodeExerciseForm, DecodeExerciseForm) })
	t.Run("a report", func(t *testing.T) { kept(t, EncodeReport, DecodeReport) })
	t.Run("a published report", func(t *testing.T) { kept(t, EncodePublished, DecodePublished) })
	t.Run("what was learned", func(t *testing.T) { kept(t, EncodeLearned, DecodeLearned) })
	t.Run("a bench", func(t *testing.T) { kept(t, EncodeBench, DecodeBench) })
	t.Run("an entry", func(t *testing.T) { kept(t, EncodeEntry, DecodeEntry) })
}

func TestADocumentOfALaterProgramIsRefused(t *testing.T) {
	_, err := DecodePlan([]byte(`{"version": 3}`))
	require.EqualError(t, err, "it was written by a later version of the program (3; this one reads up to 2)")
	_, err = DecodeWeek([]byte(`{"version": 4}`))
	require.EqualError(t, err, "it was written by a later version of the program (4; this one reads up to 3)")
}

// The first version kept sentences and no facts: its segments are read, their reasons are not known.
func TestAPlanOfTheFirstVersionIsRead(t *testing.T) {
	p, err := DecodePlan([]byte(`{"minutes": 30, "free": 2, "review": 6, "aim": 9, "worth": 4.5, "segments": [
		{"id": "working 01A", "kind": "piece", "layer": "working", "material": "01A", "least": 4, "usual": 6, "most": 9, "value": 2, "why": "in work; 1 of 3", "words": ["pulse", "tone"], "minutes": 6, "pinned": true},
		{"id": "bite rests", "kind": "preview", "layer": "preview", "least": 2, "usual": 2, "most": 2, "value": 1, "why": "Fog will need it", "minutes": 2},
		{"id": "activity rhythm 3", "kind": "activity", "layer": "preview", "least": 2, "usual": 3, "most": 4, "value": 1, "why": "one of four", "minutes": 3}],
		"left": [{"id": "review 01B", "kind": "review", "layer": "review", "material": "01B", "least": 1, "usual": 2, "most": 3, "value": 1, "why": "faded", "reason": "no room"}]}`))
	require.NoError(t, err)
	require.Equal(t, lessonplan.Plan{Minutes: 30, Free: 2, Review: 6, Aim: 9, Worth: 4.5,
		Segments: []lessonplan.Chosen{
			{
				Segment: lessonplan.Segment{
					ID:       "working 01A",
					Kind:     "piece",
					Layer:    "working",
					Material: "01A",
					Focus:    []string{"pulse", "tone"},
					Least:    4,
					Usual:    6,
					Most:     9,
					Value:    2,
				},
				Minutes: 6,
				Pinned:  true,
			},
			{
				Segment: lessonplan.Segment{
					ID:    "bite rests",
					Kind:  "preview",
					Layer: "preview",
					Skill: "rests",
					Step:  1,
					Least: 2,
					Usual: 2,
					Most:  2,
					Value: 1,
				},
				Minutes: 2,
			},
			{
				Segment: lessonplan.Segment{
					ID:     "activity rhythm 3",
					Kind:   "activity",
					Layer:  "preview",
					Goal:   "rhythm",
					Option: 3,
					Least:  2,
					Usual:  3,
					Most:   4,
					Value:  1,
				},
				Minutes: 3,
			},
		},
		Left: []lessonplan.Left{
			{
				Segment: lessonplan.Segment{ID: "review 01B", Kind: "review", Layer: "review", Material: "01B", Least: 1, Usual: 2, Most: 3, Value: 1},
				Reason:  lessonplan.Waiting{Kind: lessonplan.WorthLess},
			},
		},
	}, p)
}

// A week of the first version has the names of the fields in core, with capitals.
func TestAWeekOfTheFirstVersionIsRead(t *testing.T) {
	w, err := DecodeWeek(
		[]byte(
			`{"Days": [{"Date": "2026-05-04T00:00:00Z", "Items": [{"Key": "a:chunk:1", "Kind": "chunk", "Material": "a", "Title": "Fog", "Bars": {"From": 3, "To": 4, "Upbeat": true}, "Times": 3, "InRow": true, "Minutes": 2.5, "Words": "slowly"}], "Minutes": 2.5, "Focus": "pulse"}], "NotYet": ["the left hand"], "Dose": "three times", "Estimate": "about 3 minutes"}`,
		),
	)
	require.NoError(t, err)
	require.Equal(t, week.Plan{
		Days: []week.Day{{Date: time.Date(2026, 5, 4, 0, 0, 0, 0, time.UTC), Minutes: 2.5, Focus: "pulse", Items: []week.Item{
			{
				Key:      "a:chunk:1",
				Kind:     "chunk",
				Material: "a",
				Title:    "Fog",
				Bars:     week.Bars{From: 3, To: 4, Upbeat: true},
				Times:    3,
				InRow:    true,
				Minutes:  2.5,
				Words:    "slowly",
			}}}},
		NotYet: []week.Held{{Said: "the left hand"}}, Often: week.Often{Said: "three times"}, Estimate: "about 3 minutes",
	}, w)
}

func TestAnEntryHasTheSameBytesEachTime(t *testing.T) {
	e := studentlog.Entry{
		ID:       "01A",
		At:       time.Date(2026, 5, 4, 15, 30, 0, 0, time.UTC),
		Actor:    "01T",
		Kind:     studentlog.MarkGiven,
		Material: "01M",
		Focus:    "01F",
		Mark:     studentlog.Full,
	}
	data, err := EncodeEntry(e)
	require.NoError(t, err)
	require.Equal(
		t,
		`{"id":"01A","at":"2026-05-04T15:30:00Z","actor":"01T","kind":"mark","material":"01M","focus":"01F","mark":"full"}`,
		string(data),
	)
}

func TestWaysOfTeachersComeBack(t *testing.T) {
	ways, err := DecodeWays(nil)
	require.NoError(t, err)
	require.Nil(t, ways)
	data, err := EncodeWays(map[string]json.RawMessage{"T": json.RawMessage(`{"reviewShare":0.6}`)})
	require.NoError(t, err)
	ways, err = DecodeWays(data)
	require.NoError(t, err)
	require.Equal(t, map[string]json.RawMessage{"T": json.RawMessage(`{"reviewShare":0.6}`)}, ways)
	_, err = DecodeWays([]byte("3"))
	require.Error(t, err)
}
