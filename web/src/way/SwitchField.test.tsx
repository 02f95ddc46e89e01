// @vitest-environment happy-dom
import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { afterEach, describe, expect, it, vi } from "vitest";
import { SwitchField } from "./SwitchField";
import { groups, type Switch, type Way } from "./switches";

afterEach(cleanup);

const way = { reviewShare: 0.45, dose: "three", easeAfterLeap: true, bites: 2 } as Way;

const field = (key: keyof Way) => groups.flatMap((g) => g.switches).find((s) => s.key === key) as Switch;

describe("a switch of a way of teaching", () => {
  it("shows a share in per cent, between the bounds that came with the way", () => {
    const change = vi.fn();
    render(
      <SwitchField
        field={field("reviewShare")}
        bound={{ switch: "reviewShare", least: 0, most: 0.9 }}
        way={way}
        differs
        change={change}
      />,
    );
    const input = screen.getByLabelText(/Share of practice · changed/) as HTMLInputElement;
    expect([input.value, input.min, input.max]).toEqual(["45", "0", "90"]);
    fireEvent.change(input, { target: { value: "60" } });
    expect(change).toHaveBeenCalledWith({ ...way, reviewShare: 0.6 });
  });

  it("offers every value that the contract has for a choice", () => {
    const change = vi.fn();
    render(<SwitchField field={field("dose")} way={way} differs={false} change={change} />);
    const select = screen.getByLabelText("A step is played") as HTMLSelectElement;
    expect([...select.options].map((o) => o.value)).toEqual(["years", "once", "three", "ten", "row"]);
    fireEvent.change(select, { target: { value: "row" } });
    expect(change).toHaveBeenCalledWith({ ...way, dose: "row" });
  });

  it("is a box for a yes", () => {
    const change = vi.fn();
    render(<SwitchField field={field("easeAfterLeap")} way={way} differs={false} change={change} />);
    fireEvent.click(screen.getByRole("checkbox"));
    expect(change).toHaveBeenCalledWith({ ...way, easeAfterLeap: false });
  });
});
