// A button that takes a picture up to the server.
import Button, { type ButtonProps } from "@mui/material/Button";
import { useMutation } from "@tanstack/react-query";
import { useRef } from "react";
import { api } from "../api/client";

/** What takes files up, and how that stands. */
export const usePictureUpload = (onUploaded: (source: string) => void) =>
  useMutation({ mutationFn: api.uploadPicture, onSuccess: ({ source }) => onUploaded(source) });

interface Props extends Pick<ButtonProps, "variant" | "color" | "children"> {
  /** What the field for files is called, for whoever hears it. */
  label: string;
  upload: ReturnType<typeof usePictureUpload>;
}

export function PictureButton({ label, upload, children, ...looks }: Props) {
  const file = useRef<HTMLInputElement>(null);
  return (
    <>
      <Button {...looks} loading={upload.isPending} onClick={() => file.current?.click()}>
        {children}
      </Button>
      <input
        ref={file}
        type="file"
        hidden
        aria-label={label}
        accept="image/png,image/jpeg,image/webp,image/gif"
        onChange={(event) => {
          if (event.target.files?.[0]) upload.mutate(event.target.files[0]);
          event.target.value = "";
        }}
      />
    </>
  );
}
