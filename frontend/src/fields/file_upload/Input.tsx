import type { FileUploadFace } from "../../api/generated/wire";
import type { InputProps } from "../input";
import { late } from "../late";

export const FileUploadInput = late<InputProps<FileUploadFace>>(() => import("./FileList"));
