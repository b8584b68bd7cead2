// @vitest-environment jsdom
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { App } from "antd";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { Clearance, PlanInput } from "../api/types";
import { BeforeGoingOn } from "./BeforeGoingOn";

const questions = [{ key: "sore-scalp", text: "Is the scalp sore?" }];
const clear: Clearance = { clear: true, asked: true, history: [], questions, cautions: [], refusals: [] };
const calls = vi.hoisted(() => ({
  clearance: vi.fn(),
  askAboutHead: vi.fn(),
  readCaution: vi.fn(),
  me: vi.fn(),
}));
vi.mock("../api/client", async (original) => {
  const real = await original<typeof import("../api/client")>();
  return { ...real, server: { ...real.server, ...calls } };
});

const draw = (onRemedy?: (input: PlanInput) => void) =>
  render(
    <QueryClientProvider client={new QueryClient()}>
      <App>
        <BeforeGoingOn plan="plan-1" {...(onRemedy && { onRemedy })}>
          <button>Go on</button>
        </BeforeGoingOn>
      </App>
    </QueryClientProvider>,
  );

beforeEach(() => {
  calls.me.mockResolvedValue({
    id: "o",
    name: "Odalys",
    role: "owner",
    may: ["readCaution", "askAboutHead"],
  });
  calls.askAboutHead.mockResolvedValue(clear);
  calls.readCaution.mockResolvedValue(clear);
});
afterEach(() => {
  cleanup();
  vi.clearAllMocks();
});

describe("what holds a plan back", () => {
  it("lets go on where nothing does, and says who read what", async () => {
    calls.clearance.mockResolvedValue({
      ...clear,
      cautions: [{ key: "child", text: "A child.", by: "Tamsin", at: "2026-12-01T09:00:00Z" }],
    });
    draw();
    expect(await screen.findByText("Go on")).toBeTruthy();
    expect(screen.getByText(/Read by Tamsin/)).toBeTruthy();
  });

  it("asks about a head that no card speaks of, and holds back until then", async () => {
    calls.clearance.mockResolvedValue({ ...clear, clear: false, asked: false });
    draw();
    fireEvent.click(await screen.findByText("Is the scalp sore?"));
    expect(screen.queryByText("Go on")).toBeNull();
    calls.clearance.mockResolvedValue(clear);
    fireEvent.click(screen.getByText("Save answers"));
    expect(await screen.findByText("Go on")).toBeTruthy();
    expect(calls.askAboutHead).toHaveBeenCalledWith("plan-1", ["sore-scalp"]);
  });

  it("has a caution read by name", async () => {
    calls.clearance.mockResolvedValue({
      ...clear,
      clear: false,
      cautions: [{ key: "chemical", text: "Wait or refer." }],
    });
    draw();
    fireEvent.click(await screen.findByText("Read and understood"));
    await vi.waitFor(() => expect(calls.readCaution).toHaveBeenCalledWith("plan-1", "chemical"));
  });

  it("offers what may be done instead of what is refused", async () => {
    const instead = { child: false } as PlanInput;
    calls.clearance.mockResolvedValue({
      ...clear,
      clear: false,
      refusals: [
        {
          code: "bare-edges",
          reason: "Nothing hangs there.",
          remedies: [{ says: "Leave a strip out", input: instead }],
        },
      ],
    });
    const taken = vi.fn();
    draw(taken);
    fireEvent.click(await screen.findByText("Leave a strip out"));
    expect(taken).toHaveBeenCalledWith(instead, "Leave a strip out");
  });
});
