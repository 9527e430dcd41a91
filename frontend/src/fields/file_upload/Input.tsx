import { lazy, Suspense } from "react";
import type { FileUploadFace } from "../../api/generated/wire";
import { say } from "../../text/visitor";
import type { InputProps } from "../input";

const FileList = lazy(() => import("./FileList"));

export function FileUploadInput(props: InputProps<FileUploadFace>) {
  return (
    <Suspense fallback={<div className="cx-drop">{say("waiting")}</div>}>
      <FileList {...props} />
    </Suspense>
  );
}
