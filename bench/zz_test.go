package main
import ("testing";"patientladder/core/reading/demand";"runtime/debug";"patientladder/api";"patientladder/core/planning/forecast";"patientladder/core/student/standing")
func init(){debug.SetGCPercent(api.GCPercent)}
func BenchmarkFold(b *testing.B){ skills,_,_:=demand.Shipped(); s:=invent(skills,4); b.ResetTimer(); for i:=0;i<b.N;i++{ s.standings(skills)}}
func BenchmarkLook(b *testing.B){ skills,_,_:=demand.Shipped(); s:=invent(skills,4); var st []*standing.Standing=s.standings(skills); var m *forecast.Model=s.learn(st); b.ResetTimer(); for i:=0;i<b.N;i++{ s.look(skills,st,m)}}
func BenchmarkLearn(b *testing.B){ skills,_,_:=demand.Shipped(); s:=invent(skills,4); var st []*standing.Standing=s.standings(skills);  b.ResetTimer(); for i:=0;i<b.N;i++{ s.learn(st)}}
