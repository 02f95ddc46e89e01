package account

import (
	"bytes"
	"context"
	"strings"
	"time"

	"patientladder/api/contract"
	"patientladder/app/refusal"
	"patientladder/core/planning/withfamily"
	"patientladder/core/wording/tongue"
	"patientladder/home/sheet"
	"patientladder/store"
)

// SetStudio changes the name of the studio, its zone, and how long data stay.
func (h *Handlers) SetStudio(ctx context.Context, r contract.SetStudioRequestObject) (contract.SetStudioResponseObject, error) {
	me, err := h.owner(ctx)
	if err != nil {
		return nil, err
	}
	name := strings.TrimSpace(r.Body.Name)
	if name == "" {
		return nil, refusal.Invalid("The name of the studio is missing.")
	}
	if _, err := time.LoadLocation(r.Body.Timezone); err != nil || r.Body.Timezone == "Local" {
		return nil, refusal.Invalid("“" + r.Body.Timezone + "” is not a time zone such as Europe/Lisbon. Nothing was changed.")
	}
	letterhead, err := sheet.Letterhead(r.Body.Letterhead)
	if err != nil {
		return nil, refusal.Because(err)
	}
	if !tongue.Known(string(r.Body.Language)) {
		return nil, refusal.Invalid("There are no texts for families in that language. Nothing was changed.")
	}
	quiet, err := h.quiet(ctx, r.Body)
	if err != nil {
		return nil, err
	}
	return contract.SetStudio204Response{}, h.grave(ctx, me, "studio-set", "", nil, func(ctx context.Context) error {
		return h.Store.SetStudio(ctx, store.Studio{
			ID: me.StudioID, Name: name, Timezone: r.Body.Timezone, KeepYears: r.Body.KeepYears, Language: string(r.Body.Language),
			FirstDay: time.Weekday(r.Body.FirstDay), Letterhead: strings.Join(letterhead, "\n"), Quiet: quiet,
		})
	})
}

// quiet are the quiet hours that are set; as they are where a page of before does not know them.
func (h *Handlers) quiet(ctx context.Context, s *contract.SetStudioJSONRequestBody) (withfamily.Quiet, error) {
	day, err := h.Day(ctx)
	if err != nil || s.QuietFrom == nil || s.QuietTo == nil {
		return day.Tenant.Quiet, err
	}
	out := withfamily.Quiet{From: *s.QuietFrom, To: *s.QuietTo}
	if err := out.Check(); err != nil {
		return out, refusal.Because(err)
	}
	return out, nil
}

// ExportStudio returns everything of the studio.
func (h *Handlers) ExportStudio(ctx context.Context, _ contract.ExportStudioRequestObject) (contract.ExportStudioResponseObject, error) {
	me, err := h.owner(ctx)
	if err != nil {
		return nil, err
	}
	var out bytes.Buffer
	if _, err := h.Store.ExportStudio(ctx, me.StudioID, &out, h.Now()); err != nil {
		return nil, err
	}
	name := "studio-" + h.Now().UTC().Format(time.DateOnly) + ".jsonl"
	return contract.ExportStudio200ApplicationoctetStreamResponse{
			FileApplicationoctetStreamResponse: contract.FileApplicationoctetStreamResponse{
				Body: &out, ContentLength: int64(out.Len()), Headers: contract.FileResponseHeaders{ContentDisposition: `attachment; filename="` + name + `"`},
			},
		}, h.audit(
			ctx,
			me.StudioID,
			me.ID,
			"studio-exported",
			"",
		)
}
