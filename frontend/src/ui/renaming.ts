// A name that others use: changed when it is left, with all that uses it, or the reason why it can't be.
import { type ChangeEvent, type KeyboardEvent, useRef, useState } from "react";
import { reasonOf } from "../api/client";

export interface RenamingProps {
  value: string;
  /** Whether it may be empty; else what is emptied stays as it was. */
  mayBeEmpty?: boolean | undefined;
  onRename: (name: string) => Promise<void> | void;
}

/** What an input needs for that, and why what was typed can't be kept, or null. */
export function useRenaming({ value, mayBeEmpty = false, onRename }: RenamingProps) {
  const [typed, setTyped] = useState<string | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const renaming = useRef(false);
  const forget = () => {
    setTyped(null);
    setProblem(null);
  };
  const keep = async () => {
    const name = typed?.trim();
    // Enter, and leaving the field while the core still renames, are one wish.
    if (renaming.current) return;
    if (name === "" && !mayBeEmpty) {
      setTyped(null);
      return setProblem(`It can’t be empty: “${value}” stays.`);
    }
    if (name === undefined || name === value) return forget();
    renaming.current = true;
    try {
      await onRename(name);
      forget();
    } catch (error) {
      setProblem(reasonOf(error));
    } finally {
      renaming.current = false;
    }
  };
  const input = {
    value: typed ?? value,
    onChange: (event: ChangeEvent<HTMLInputElement | HTMLTextAreaElement>) => {
      setTyped(event.target.value);
      setProblem(null);
    },
    onBlur: () => void keep(),
    onKeyDown: (event: KeyboardEvent) => {
      if (event.key === "Enter") void keep();
      if (event.key === "Escape") forget();
    },
  };
  return { input, problem };
}
