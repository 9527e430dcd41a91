import { lazy, Suspense } from "react";
import type { SignatureFace } from "../../api/generated/wire";
import { say } from "../../text/visitor";
import type { InputProps } from "../input";

const SignatureBox = lazy(() => import("./SignatureBox"));

export function SignatureInput(props: InputProps<SignatureFace>) {
  return (
    <Suspense fallback={<div className="cx-drop">{say("waiting")}</div>}>
      <SignatureBox {...props} />
    </Suspense>
  );
}
