// What can be done on the desk, with undo for what takes something away.
import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate } from "react-router";
import { api, ApiError } from "../../api/client";
import type { Form, FormRowReply } from "../../api/generated/wire";
import { queries } from "../../api/queries";
import { sayProblems } from "../../model/places";
import { counted } from "../../text/words";
import { saveFormFile } from "./form_file";

type Named = Pick<FormRowReply, "id" | "name">;

export interface DeskActions {
  /** What was done, and how it is taken back. */
  told: { words: string; undo?: () => void } | null;
  problem: string | null;
  /** The forms that are about to be deleted, of which something hangs on one; null where nothing is asked. */
  asked: readonly FormRowReply[] | null;
  make: () => void;
  importFile: (file: File) => void;
  duplicate: (form: Named) => void;
  exportFiles: (forms: readonly Named[]) => void;
  /** Deletes forms; where visitors or responses hang on one, it asks first. */
  remove: (forms: readonly FormRowReply[]) => void;
  removeAsked: () => void;
  leaveThem: () => void;
  bringBack: (forms: readonly Named[]) => void;
  label: (forms: readonly FormRowReply[], label: string, on: boolean) => void;
  give: (forms: readonly Named[], person: string) => void;
  forgetTold: () => void;
  forgetProblem: () => void;
}

async function documentOf(file: File): Promise<unknown> {
  try {
    return JSON.parse(await file.text());
  } catch {
    throw new ApiError(
      "not_json",
      `${file.name} is no JSON file that can be read. Choose a file that Codexa exported.`,
    );
  }
}

const MOST_TOLD = 12;

/** Makes a form of a document; what is wrong with it is said by the number and title of each block. */
async function imported(document: unknown): Promise<string> {
  try {
    return (await api.importForm(document)).id;
  } catch (error) {
    if (!(error instanceof ApiError) || error.problems.length === 0) throw error;
    const lines = error.problems.slice(0, MOST_TOLD).map((each) => saidOf(document, each));
    const more = error.problems.length - lines.length;
    throw new ApiError(error.code, [...lines, ...(more > 0 ? [`And ${more} more.`] : [])].join("\n"));
  }
}

function saidOf(document: unknown, problem: ApiError["problems"][number]): string {
  try {
    return sayProblems(document as Form, [problem]);
  } catch {
    return `${problem.path}: ${problem.message}.`; // the document is no form at all
  }
}

const named = (forms: readonly Named[]): string =>
  forms.length === 1 ? forms[0]!.name : counted(forms.length, "form");

export function useDesk(): DeskActions {
  const [told, setTold] = useState<DeskActions["told"]>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [asked, setAsked] = useState<readonly FormRowReply[] | null>(null);
  const queryClient = useQueryClient();
  const navigate = useNavigate();

  const attempt = async (work: () => Promise<void>) => {
    setProblem(null);
    try {
      await work();
    } catch (error) {
      setProblem(error instanceof Error ? error.message : String(error));
    }
    await queryClient.invalidateQueries({ queryKey: queries.forms().queryKey });
  };
  const open = (form: string) => navigate(`/forms/${form}/compose`);
  /** One form after the other: what can't be done with one stops there, and is said. */
  const each = async <Each extends Named>(forms: readonly Each[], does: (form: Each) => Promise<unknown>) => {
    for (const form of forms) await does(form);
  };
  const bringBack = (forms: readonly Named[]) =>
    void attempt(async () => {
      await each(forms, ({ id }) => api.restoreForm(id));
      setTold({ words: `${named(forms)} ${forms.length === 1 ? "is" : "are"} back.` });
    });
  const removeNow = (forms: readonly FormRowReply[]) =>
    void attempt(async () => {
      setAsked(null);
      await each(forms, ({ id }) => api.deleteForm(id));
      const words = `${named(forms)} ${forms.length === 1 ? "lies" : "lie"} in the bin now.`;
      setTold({ words, undo: () => bringBack(forms) });
    });

  return {
    told,
    problem,
    asked,
    make: () => void attempt(async () => open((await api.makeForm("Untitled form")).id)),
    importFile: (file) => void attempt(async () => open(await imported(await documentOf(file)))),
    duplicate: (form) => void attempt(async () => void (await api.duplicateForm(form.id))),
    exportFiles: (forms) =>
      void attempt(() => each(forms, async ({ id, name }) => saveFormFile(name, (await api.form(id)).draft))),
    remove: (forms) => (forms.some(somethingHangsOn) ? setAsked(forms) : removeNow(forms)),
    removeAsked: () => asked && removeNow(asked),
    leaveThem: () => setAsked(null),
    bringBack,
    label: (forms, label, on) =>
      void attempt(() =>
        each(forms, ({ id, labels }) => {
          const others = labels.filter((other) => other !== label);
          return api.setLabels(id, on ? [...others, label] : others);
        }),
      ),
    give: (forms, person) => void attempt(() => each(forms, ({ id }) => api.giveForm(id, person))),
    forgetTold: () => setTold(null),
    forgetProblem: () => setProblem(null),
  };
}

/** Whether visitors find the form, or something came in by it. */
export const somethingHangsOn = (form: FormRowReply): boolean => form.live_edition !== null || form.responses > 0;
