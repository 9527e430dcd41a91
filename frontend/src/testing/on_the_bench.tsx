// A workbench without a server, for tests of what stands in it: the draft, the selection, undo, and what was done.
import { ThemeProvider } from "@mui/material/styles";
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { act, configure, render, screen } from "@testing-library/react";
import { userEvent } from "@testing-library/user-event";
import { type ReactNode, useMemo, useReducer, useState } from "react";
import { MemoryRouter } from "react-router";
import type { AnalysisReply, FormReply, SignedInReply } from "../api/generated/wire";
import { SignedInProvider } from "../app/signed_in";
import { type Bench, BenchContext, NOTHING_ANSWERED, type Trying } from "../app/workbench/bench";
import { useSelection } from "../app/workbench/useSelection";
import { actionsOn } from "../app/compose/actions";
import { historyReducer, newHistory } from "../model/history";
import { partsOf } from "../model/parts";
import { theme } from "../theme/theme";
import { A_FORM } from "./a_form";

const NOTHING_FOUND = {
  findings: [],
  notes: {},
  links: {},
  ranges: {},
  state: { path: [], blocks: {} },
} as unknown as AnalysisReply;

// Whether each of a hundred controls is in sight costs more than all else.
configure({ defaultHidden: true });

const MIRA: SignedInReply = {
  person_id: "5f0c6a0e-7c39-4a0c-9a53-5d1f2f3c4b5a",
  person_name: "Mira Okafor",
  email: "mira@alderlight.example.org",
  team_id: "7d0e3c55-3f0a-4a53-9d0c-1c1f5f7f5b11",
  team_name: "Alderlight Observatory",
  team_slug: "alderlight",
  role: "owner",
  csrf_token: "",
};

interface Given extends Partial<Pick<Bench, "form" | "mayEdit" | "people" | "clash" | "problem" | "saveState">> {
  analysis?: Partial<AnalysisReply>;
}

/** Draws what stands on a workbench; `bench()` is the workbench as it is by then. */
export function onTheBench(children: ReactNode, { form = A_FORM, analysis, ...given }: Given = {}) {
  let latest: Bench;
  // Each action is a step of its own, however quick the test is.
  let clock = 0;
  function Workbench() {
    const [history, step] = useReducer(historyReducer, form, newHistory);
    const parts = useMemo(() => partsOf(history.form), [history.form]);
    const selection = useSelection(parts);
    const [trying, setTrying] = useState<Trying>(NOTHING_ANSWERED);
    const found = { ...NOTHING_FOUND, ...analysis };
    const bench = {
      ...selection,
      reply: { id: "visit", draft: form } as FormReply,
      form: history.form,
      parts,
      analysis: found,
      analysed: history.form,
      saved: { form, revision: 1, analysis: found },
      saveState: "saved",
      problem: null,
      notice: null,
      clash: null,
      people: [],
      mayEdit: true,
      trying,
      setTrying,
      act: (action: Parameters<Bench["act"]>[0]) => step({ type: "act", action, at: (clock += 60_000) }),
      undo: () => step({ type: "undo" }),
      redo: () => step({ type: "redo" }),
      ...given,
    } as unknown as Bench;
    latest = { ...bench, actions: actionsOn(() => latest) };
    return <BenchContext value={latest}>{children}</BenchContext>;
  }
  const view = render(
    <ThemeProvider theme={theme}>
      <QueryClientProvider client={new QueryClient({ defaultOptions: { queries: { retry: false } } })}>
        <SignedInProvider value={MIRA}>
          <MemoryRouter>
            <Workbench />
          </MemoryRouter>
        </SignedInProvider>
      </QueryClientProvider>
    </ThemeProvider>,
  );
  /** Does something that no control on the screen does. */
  const run = (what: (bench: Bench) => void) => act(() => what(latest));
  return { ...view, screen, user: userEvent.setup(), bench: () => latest, run };
}

/** The settings of a part of the draft by now. */
export const settingsOf = <Settings,>(bench: Bench, part: string): Settings =>
  bench.parts.get(part)!.part as unknown as Settings;
