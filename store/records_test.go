package store_test

import (
	"encoding/json"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"patientladder/core/base/calendar"
	"patientladder/core/library/skill"
	"patientladder/core/planning/ladder"
	"patientladder/core/planning/lessonplan"
	"patientladder/core/planning/progress"
	"patientladder/core/planning/week"
	"patientladder/core/planning/whatif"
	"patientladder/core/planning/withfamily"
	"patientladder/core/reading/naming"
	"patientladder/core/student/studentlog"
	"patientladder/store"
)

// record is something that is kept: written for one studio, and then read under each of two.
type record struct {
	name  string
	write func(studio string) error
	read  func(studio string) (any, error)
	want  any
}

// Whatever is written for one studio comes back as it was, under it and under no other: another studio that asks with the same ids
// finds what it would have found before.
func TestARecordComesBackUnderItsStudioAlone(t *testing.T) {
	mine, l, m := studio(t, db)
	other, _, _ := studio(t, db)
	later := now.Add(time.Hour)
	teacher, err := db.StudioTeacher(ctx, mine)
	require.NoError(t, err)
	written := progress.Written{
		Purpose: progress.ForFamily, Length: progress.Short, Tone: progress.Warm, Span: progress.Span{From: date("2026-01-01"), To: date("2026-04-01")},
		Own: "well done", Edits: map[progress.Part]progress.Edit{"pieces": {Text: "a", Was: "b"}},
	}
	report := store.Report{ID: id(), Ladder: l.ID, Written: written, MadeAt: now}
	batch := store.NewBatch{
		ID: id(), MadeAt: now, Rungs: []ladder.Placed{{Material: m.ID, Strand: m.Strand}},
		Entries: []studentlog.Entry{{ID: id(), At: now, Actor: "t", Kind: studentlog.Note, Text: "x"}},
	}
	message := store.Message{
		ID: id(), Ladder: l.ID, To: "a@harbour.example", Subject: "s", Body: "b", MadeAt: now, NotBefore: later, Kind: store.AboutRemind,
		Day: date("2026-05-05"), Stop: "/stop",
	}
	note := withfamily.Note{
		ID: id(), Kind: withfamily.MoveLesson, Text: "may we come later?", About: "2026-05-11-x", Day: date("2026-05-04"), At: now,
	}
	answered := note
	answered.Answer, answered.AnsweredAt = "yes", later
	plan := store.LessonPlan{
		Ladder: l.ID, Day: date("2026-05-04"), Hand: lessonplan.Hand{Minutes: 45, Drops: []string{"posture"}},
		Plan: lessonplan.Plan{Minutes: 45, Free: 3, Begun: true},
	}
	kept := plan
	kept.Version, kept.Plan.Segments, kept.Plan.Left = 1, []lessonplan.Chosen{}, []lessonplan.Left{}
	treat := store.Treat{ID: id(), Words: "ice cream", Pieces: 2, Base: 3, Made: date("2026-05-04")}
	given := treat
	given.Given = date("2026-05-11")
	target := whatif.Target{ID: id(), Name: "Recital", Day: date("2026-06-20"), Material: m.ID}
	holiday := calendar.Holiday{ID: id(), Name: "Half term", First: date("2026-05-25"), Last: date("2026-05-29")}
	shown := week.Plan{Days: []week.Day{{Date: date("2026-05-05"), Items: []week.Item{{Key: "whole x", Times: 2, Slower: 1}}}}, There: []week.Step{{Material: m.ID, Bars: week.Bars{From: 1, To: 2}, Hand: "left hand"}}}
	own := skill.Skill{ID: "harbour-roll", Name: "harbour roll", Family: "hands", Instruments: []string{"keyboard"}, Steps: []string{"roll"}, Exposures: 2, Easy: true, Ahead: 3, Gesture: true}
	goal := lessonplan.Goal{ID: "own-game", Name: "Tide", From: 4, To: 9, Options: []string{"in", "out", "slack"}, Home: "at the sink"}

	for _, r := range []record{
		{"a batch", func(s string) error { return db.AddBatch(ctx, s, l.ID, batch) },
			func(s string) (any, error) { return db.Batches(ctx, s, l.ID) },
			[]store.Batch{{ID: batch.ID, MadeAt: now, Entries: []string{batch.Entries[0].ID}, Rungs: []string{m.ID}, Materials: []string{}}}},
		{"an order of rungs", func(string) error { return nil },
			func(s string) (any, error) { return db.Rungs(ctx, s, l.ID) }, []ladder.Placed{{Material: m.ID, Strand: m.Strand}}},
		{"all rungs", func(string) error { return nil }, func(s string) (any, error) {
			all, err := db.AllRungs(ctx, s)
			return all[l.ID], err
		}, []ladder.Placed{{Material: m.ID, Strand: m.Strand}}},
		{"a treat", func(s string) error { return db.SetTreat(ctx, s, l.ID, treat) },
			func(s string) (any, error) { return db.Treats(ctx, s, l.ID) }, []store.Treat{treat}},
		{"a treat that was had", func(s string) error { return db.SetTreat(ctx, s, l.ID, given) },
			func(s string) (any, error) { return db.Treats(ctx, s, l.ID) }, []store.Treat{given}},
		{"a target", func(s string) error { return db.SetTarget(ctx, s, l.ID, target) },
			func(s string) (any, error) { return db.Targets(ctx, s, l.ID) }, []whatif.Target{target}},
		{"all targets", func(string) error { return nil }, func(s string) (any, error) {
			all, err := db.AllTargets(ctx, s)
			return all[l.ID], err
		}, []whatif.Target{target}},
		{"a holiday", func(s string) error { return db.SetHoliday(ctx, s, holiday) },
			func(s string) (any, error) { return db.Holidays(ctx, s) }, []calendar.Holiday{holiday}},
		{"the plans of a day", func(s string) error { return db.SaveLessonPlans(ctx, s, []store.LessonPlan{plan}) }, func(s string) (any, error) {
			all, err := db.DayPlans(ctx, s, plan.Day)
			return all[l.ID], err
		}, kept},
		{"the plan of a lesson", func(string) error { return nil }, func(s string) (any, error) {
			here, _, err := db.LessonPlans(ctx, s, l.ID, plan.Day)
			here.Day, here.Ladder = time.Time{}, "" // they come from the question
			return here, err
		}, store.LessonPlan{Hand: kept.Hand, Plan: kept.Plan, Version: 1}},
		{"the plan before a lesson", func(string) error { return nil }, func(s string) (any, error) {
			_, before, err := db.LessonPlans(ctx, s, l.ID, plan.Day.AddDate(0, 0, 7))
			return before, err
		}, &kept},
		{"a note", func(s string) error { _, err := db.AddNotes(ctx, s, l.ID, []withfamily.Note{note}); return err },
			func(s string) (any, error) { return db.Notes(ctx, s, l.ID, now.AddDate(0, 0, -1)) }, []withfamily.Note{note}},
		{"an answer", func(s string) error { return db.AnswerNote(ctx, s, note.ID, "yes", later, []store.Message{message}) },
			func(s string) (any, error) { return db.Notes(ctx, s, l.ID, now.AddDate(0, 0, -1)) }, []withfamily.Note{answered}},
		{"the notes of a studio", func(string) error { return nil },
			func(s string) (any, error) { return db.StudioNotes(ctx, s, now.AddDate(0, 0, -1)) },
			[]store.Note{{Note: answered, Ladder: l.ID, Student: l.Name, Instrument: "piano"}}},
		{"a message", func(string) error { return nil }, func(s string) (any, error) {
			list, err := db.Messages(ctx, s)
			for i := range list {
				list[i].Stop = message.Stop // it is kept for the letter alone
			}
			return list, err
		}, []store.Message{{
			Studio: mine, ID: message.ID, Ladder: l.ID, Student: l.Name, To: message.To, Subject: "s", Body: "b", MadeAt: now, NotBefore: later,
			Kind: store.AboutRemind, Day: date("2026-05-05"), Stop: "/stop",
		}}},
		{"a reminder that is not needed", func(s string) error { return db.DropReminder(ctx, s, l.ID, message.Day) },
			func(s string) (any, error) { return db.Messages(ctx, s) }, []store.Message(nil)},
		{"a report", func(s string) error { return db.SaveReport(ctx, s, report) }, func(s string) (any, error) {
			return db.Reports(ctx, s, l.ID)
		}, []store.Report{{ID: report.ID, Ladder: l.ID, Written: written, MadeAt: now, Version: 1}}},
		{"a report that was published", func(s string) error {
			r := report
			r.Version, r.Published, r.PublishedAt = 1, progress.Published{Title: "T", Days: "D", Lines: []string{"one"}}, later
			return db.PublishReport(ctx, s, r, []byte("%PDF"), nil)
		}, func(s string) (any, error) { return db.Reports(ctx, s, l.ID) }, []store.Report{{
			ID: report.ID, Ladder: l.ID, Written: written, MadeAt: now, Version: 2,
			Published: progress.Published{Title: "T", Days: "D", Lines: []string{"one"}}, PublishedAt: later,
		}}},
		{"its printed page", func(string) error { return nil }, func(s string) (any, error) {
			data, err := db.ReportPDF(ctx, s, l.ID, report.ID)
			return string(data), err
		}, "%PDF"},
		{"a week as it was shown", func(s string) error { return db.NoteShownWeek(ctx, s, l.ID, date("2026-05-05"), "print", shown) },
			func(s string) (any, error) {
				p, known, err := db.ShownWeek(ctx, s, l.ID, date("2026-05-05"), "print")
				return []any{p, known}, err
			}, []any{shown, true}},
		{"what was set by hand", func(s string) error {
			return db.SavePracticeWeek(ctx, s, store.PracticeWeek{Ladder: l.ID, Start: date("2026-05-05"), Hand: week.Hand{Aside: []string{"x"}, Minutes: 9}}, nil)
		}, func(s string) (any, error) {
			all, err := db.StudioHands(ctx, s, date("2026-05-01"))
			return all[l.ID], err
		}, []store.PracticeWeek{{Ladder: l.ID, Start: date("2026-05-05"), Hand: week.Hand{Aside: []string{"x"}, Minutes: 9}, Version: 1}}},
		{"a published week", func(s string) error {
			return db.SavePracticeWeek(ctx, s, store.PracticeWeek{Ladder: l.ID, Start: date("2026-05-12"), Published: &shown, PublishedAt: later}, nil)
		}, func(s string) (any, error) { return db.WeekBefore(ctx, s, l.ID, date("2026-05-13")) },
			[]store.PracticeWeek{{Ladder: l.ID, Start: date("2026-05-12"), Published: &shown, PublishedAt: later}}},
		{"no week before it", func(string) error { return nil },
			func(s string) (any, error) { return db.WeekBefore(ctx, s, l.ID, date("2026-05-12")) }, []store.PracticeWeek(nil)},
		{"a skill", func(s string) error { return db.SetSkill(ctx, s, own) },
			func(s string) (any, error) { return db.Skills(ctx, s) }, []skill.Skill{own}},
		{"a word for a skill", func(s string) error { return db.SetSkillWords(ctx, s, map[string]string{"rolly": own.ID}) },
			func(s string) (any, error) {
				words, err := db.SkillWords(ctx, s)
				return words["rolly"], err
			}, own.ID},
		{"a game", func(s string) error { return db.SetActivity(ctx, s, goal) },
			func(s string) (any, error) { return db.Activities(ctx, s) }, []lessonplan.Goal{goal}},
		{"an address of the calendar", func(s string) error { return db.SetFeed(ctx, s, "feed-"+mine) },
			func(s string) (any, error) { return db.Feed(ctx, s) }, "feed-" + mine},
		{"who gives a lesson", func(s string) error { return db.Cover(ctx, s, l.ID, date("2026-05-11"), teacher.ID) },
			func(s string) (any, error) { return db.CoversOf(ctx, s, l.ID, date("2026-05-01")) },
			[]store.Covered{{Day: date("2026-05-11"), Teacher: teacher.ID}}},
		{"what was done", func(s string) error {
			return db.Audit(ctx, s, store.Audited{At: now, Kind: "student-given", Detail: "for a day", Teacher: teacher.ID})
		}, func(s string) (any, error) {
			list, err := db.AuditOf(ctx, s)
			for i := range list {
				list[i].ID = ""
			}
			return list, err
		}, []store.Audited{{At: now, Kind: "student-given", Detail: "for a day", Teacher: teacher.ID, Name: "T"}}},
		{"a deletion", func(s string) error { return db.MarkErase(ctx, s, l.StudentID, later) },
			func(s string) (any, error) {
				list, err := db.Going(ctx, s)
				return list, err
			}, []store.Going{{Ladder: l.ID, Student: l.StudentID, Name: l.Name, At: later}}},
	} {
		t.Run(r.name, func(t *testing.T) {
			before, _ := r.read(other)
			require.NoError(t, r.write(mine))
			got, err := r.read(mine)
			require.NoError(t, err)
			require.Equal(t, r.want, got)
			after, _ := r.read(other)
			require.Equal(t, before, after, "another studio that asks with the same ids")
		})
	}
}

// Everything that a studio sets comes back.
func TestEverySettingOfAStudioComesBack(t *testing.T) {
	id0, _, _ := studio(t, db)
	st, err := db.Studio(ctx, id0)
	require.NoError(t, err)
	st.Name, st.Timezone, st.KeepYears, st.Language, st.FirstDay, st.Letterhead = "Harbour", "Europe/Oslo", 3, "de", time.Sunday, "Quay 4"
	require.Equal(t, withfamily.UsualQuiet, st.Quiet)
	st.Quiet = withfamily.Quiet{From: 1290, To: 540}
	require.NoError(t, db.SetStudio(ctx, st))
	st.Words = naming.Words{Notes: naming.Solfege, Steps: naming.AllSkips, Values: naming.QuarterNotes, Rhythm: naming.Sea}
	st.Approach = naming.ByName
	now, err := db.Studio(ctx, st.ID)
	require.NoError(t, err)
	st.WordsVersion = now.WordsVersion
	require.NoError(t, db.SetWords(ctx, st))
	w := st.Way
	w.ReviewShare, w.HomeCounts, w.Approach = 0.3, false, naming.ByName
	require.NoError(t, db.SetWay(ctx, st.ID, w, st.WayVersion))
	require.NoError(t, db.SetTold(ctx, st.ID, 3))
	got, err := db.Studio(ctx, st.ID)
	require.NoError(t, err)
	require.Equal(t, []any{"Harbour", "Europe/Oslo", 3, "de", time.Sunday, "Quay 4", st.Quiet, st.Words, naming.ByName, w, 3},
		[]any{got.Name, got.Timezone, got.KeepYears, got.Language, got.FirstDay, got.Letterhead, got.Quiet, got.Words, got.Approach, got.Way, got.Told})
	require.NoError(t, db.SetTold(ctx, st.ID, 2))
	require.NoError(t, db.SetTeacherWays(ctx, got.WithWay("t", json.RawMessage(`{"bites":1}`)), got.WayVersion))
	got, err = db.Studio(ctx, st.ID)
	require.NoError(t, err)
	require.Equal(t, 3, got.Told, "it goes on only")
	mine, err := got.WayOf("t")
	require.NoError(t, err)
	require.Equal(t, 1, mine.Bites)
}

// What is kept of accounts comes back, until it has run out or was used, and of its teacher alone.
func TestWhatIsKeptOfAccounts(t *testing.T) {
	mine, _, _ := studio(t, db)
	me, err := db.StudioTeacher(ctx, mine)
	require.NoError(t, err)
	link := store.OnceLink{
		Token: id() + id(), Kind: store.InviteLink, Studio: mine, Email: "n@harbour.example", Name: "N", Role: "teacher", Made: now, Until: now.Add(time.Hour),
	}
	require.NoError(t, db.AddOnceLink(ctx, link))
	got, err := db.OnceLink(ctx, link.Token, store.InviteLink, now.Add(59*time.Minute))
	require.NoError(t, err)
	require.Equal(t, link, got)
	_, err = db.OnceLink(ctx, link.Token, store.InviteLink, now.Add(time.Hour+time.Second))
	require.ErrorIs(t, err, store.ErrNotFound, "it has run out")
	_, err = db.OnceLink(ctx, link.Token, store.PasswordLink, now)
	require.ErrorIs(t, err, store.ErrNotFound, "it is for something else")
	require.NoError(t, db.UseOnceLink(ctx, link.Token))
	_, err = db.OnceLink(ctx, link.Token, store.InviteLink, now)
	require.ErrorIs(t, err, store.ErrNotFound, "once")

	key := store.Passkey{ID: id() + id(), Name: "Tablet", Body: []byte(`{"a":1}`), Made: now}
	require.NoError(t, db.AddPasskey(ctx, me.ID, key))
	key.Used, key.Body = now.Add(time.Hour), []byte(`{"a":2}`)
	require.NoError(t, db.UsePasskey(ctx, me.ID, key))
	keys, err := db.Passkeys(ctx, me.ID)
	require.NoError(t, err)
	require.Equal(t, []store.Passkey{key}, keys)

	challenge := id() + id()
	require.NoError(t, db.AddChallenge(ctx, challenge, []byte("body"), now.Add(time.Minute)))
	body, err := db.TakeChallenge(ctx, challenge, now)
	require.NoError(t, err)
	require.Equal(t, "body", string(body))
	_, err = db.TakeChallenge(ctx, challenge, now)
	require.ErrorIs(t, err, store.ErrNotFound, "once")

	require.NoError(t, db.KnowDevice(ctx, me.ID, "device-a", now))
	require.NoError(t, db.KnowDevice(ctx, me.ID, "device-b", now))
	require.NoError(t, db.ForgetDevices(ctx, me.ID, "device-b"))
	for token, known := range map[string]bool{"device-a": false, "device-b": true, "device-c": false} {
		is, err := db.IsDeviceOf(ctx, me.ID, token)
		require.NoError(t, err)
		require.Equal(t, known, is, token)
	}
	codes := []string{id(), id()}
	require.NoError(t, db.SetSecond(ctx, me.ID, "secret", 5, codes))
	require.NoError(t, db.UseRecoveryCode(ctx, me.ID, codes[0]))
	require.ErrorIs(t, db.UseRecoveryCode(ctx, me.ID, codes[0]), store.ErrNotFound)
	left, err := db.RecoveryCodes(ctx, me.ID)
	require.NoError(t, err)
	require.Equal(t, 1, left)
	require.NoError(t, db.UseSecond(ctx, me.ID, 6))
	require.ErrorIs(t, db.UseSecond(ctx, me.ID, 6), store.ErrNotFound, "a step counts once")
	again, err := db.Teacher(ctx, me.ID)
	require.NoError(t, err)
	require.Equal(t, []any{"secret", int64(6), "owner"}, []any{again.SecondSecret, again.SecondStep, again.Role})

	letter := store.AccountLetter{ID: id(), To: "n@harbour.example", Subject: "s", Body: "b", Made: now.AddDate(-5, 0, 0)}
	require.NoError(t, db.AddAccountLetter(ctx, letter))
	taken, err := db.TakeAccountLetter(ctx, now, now.Add(time.Minute))
	require.NoError(t, err)
	require.Equal(t, letter.ID, taken.ID, "the oldest first")
	second, err := db.TakeAccountLetter(ctx, now.Add(59*time.Second), now.Add(time.Hour))
	if err == nil {
		require.NotEqual(t, letter.ID, second.ID, "it is being sent")
	}
	require.NoError(t, db.DropAccountLetter(ctx, letter.ID))
}
