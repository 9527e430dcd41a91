// A picture: chosen or dropped, taken up by the server, shown small; or taken away again.
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useMutation } from "@tanstack/react-query";
import { useRef } from "react";
import { api } from "../api/client";

interface Props {
  label: string;
  value: string;
  onChange: (source: string) => void;
}

export function PictureField({ label, value, onChange }: Props) {
  const file = useRef<HTMLInputElement>(null);
  const upload = useMutation({ mutationFn: api.uploadPicture, onSuccess: ({ source }) => onChange(source) });
  const take = (files: FileList | null) => files?.[0] && upload.mutate(files[0]);
  return (
    <Box
      role="group"
      aria-label={label}
      onDragOver={(event) => event.preventDefault()}
      onDrop={(event) => {
        event.preventDefault();
        take(event.dataTransfer.files);
      }}
    >
      <Typography variant="h3" component="p" color="text.secondary" sx={{ mb: 0.5 }}>
        {label}
      </Typography>
      <Box sx={{ display: "flex", alignItems: "center", gap: 1 }}>
        {value && (
          <Box
            component="img"
            src={value}
            alt=""
            sx={{ width: 72, height: 48, objectFit: "contain", border: 1, borderColor: "divider", borderRadius: 0.5 }}
          />
        )}
        <Button variant="outlined" color="inherit" loading={upload.isPending} onClick={() => file.current?.click()}>
          {value ? "Another" : "Choose a picture"}
        </Button>
        <input
          ref={file}
          type="file"
          hidden
          aria-label={label}
          accept="image/png,image/jpeg,image/webp,image/gif"
          onChange={(event) => {
            take(event.target.files);
            event.target.value = "";
          }}
        />
        {value && (
          <Button color="inherit" onClick={() => onChange("")}>
            Remove
          </Button>
        )}
      </Box>
      <Typography
        variant="caption"
        color={upload.isError ? "error" : "text.secondary"}
        role={upload.isError ? "alert" : undefined}
      >
        {upload.isError ? upload.error.message : "PNG, JPEG, WebP or GIF, up to 5 MB; made at most 2400 pixels wide."}
      </Typography>
    </Box>
  );
}
