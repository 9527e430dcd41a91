import type { SignatureFace } from "../../api/generated/wire";
import type { InputProps } from "../input";
import { late } from "../late";

export const SignatureInput = late<InputProps<SignatureFace>>(() => import("./SignatureBox"));
