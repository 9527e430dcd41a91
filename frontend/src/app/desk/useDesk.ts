// What can be done on the desk, with undo for what takes something away.
import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate } from "react-router";
import { api, ApiError } from "../../api/client";
import type { FormRowReply } from "../../api/generated/wire";
import { queries } from "../../api/queries";

export interface DeskActions {
  deleted: FormRowReply | null;
  problem: string | null;
  make: () => void;
  importFile: (file: File) => void;
  duplicate: (form: FormRowReply) => void;
  remove: (form: FormRowReply) => void;
  undoDelete: () => void;
  forgetDeleted: () => void;
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

export function useDesk(): DeskActions {
  const [deleted, setDeleted] = useState<FormRowReply | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const queryClient = useQueryClient();
  const navigate = useNavigate();

  const attempt = async (work: () => Promise<void>) => {
    setProblem(null);
    try {
      await work();
      await queryClient.invalidateQueries({ queryKey: queries.forms().queryKey });
    } catch (error) {
      setProblem(error instanceof Error ? error.message : String(error));
    }
  };
  const open = (form: string) => navigate(`/forms/${form}/compose`);

  return {
    deleted,
    problem,
    make: () => void attempt(async () => open((await api.makeForm("Untitled form")).id)),
    importFile: (file) => void attempt(async () => open((await api.importForm(await documentOf(file))).id)),
    duplicate: (form) => void attempt(async () => void (await api.duplicateForm(form.id))),
    remove: (form) =>
      void attempt(async () => {
        await api.deleteForm(form.id);
        setDeleted(form);
      }),
    undoDelete: () =>
      void attempt(async () => {
        if (deleted) await api.restoreForm(deleted.id);
        setDeleted(null);
      }),
    forgetDeleted: () => setDeleted(null),
    forgetProblem: () => setProblem(null),
  };
}
