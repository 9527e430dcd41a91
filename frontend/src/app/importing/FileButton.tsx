// Chooses a CSV or XLSX file, which is read here and sent as it is.
import Alert from "@mui/material/Alert";
import Button from "@mui/material/Button";
import { useRef, useState } from "react";
import { inBase64 } from "../publish/link_tables";

const MOST_BYTES = 20 * 1024 * 1024;

/** A file as it is sent: its bytes in base64. */
export interface SentFile {
  id: string;
  name: string;
  content: string;
}

interface Props {
  name: string;
  label: string;
  quiet?: boolean;
  loading?: boolean;
  onFile: (file: SentFile) => void;
}

export function FileButton({ name, label, quiet = false, loading = false, onFile }: Props) {
  const chooser = useRef<HTMLInputElement>(null);
  const [problem, setProblem] = useState("");
  const take = async (file: File | undefined) => {
    if (!file) return;
    setProblem(file.size > MOST_BYTES ? "This file is larger than 20 MB. Split it." : "");
    if (file.size > MOST_BYTES) return;
    const content = inBase64(new Uint8Array(await file.arrayBuffer()));
    onFile({ id: crypto.randomUUID(), name: file.name, content });
  };
  return (
    <>
      <Button
        autoFocus={!quiet}
        variant={quiet ? "outlined" : "contained"}
        loading={loading}
        onClick={() => chooser.current?.click()}
      >
        {label}
      </Button>
      <input
        ref={chooser}
        hidden
        type="file"
        accept=".csv,.tsv,.txt,.xlsx"
        aria-label={name}
        onChange={(event) => {
          void take(event.target.files?.[0]);
          event.target.value = "";
        }}
      />
      {problem && <Alert severity="error">{problem}</Alert>}
    </>
  );
}
