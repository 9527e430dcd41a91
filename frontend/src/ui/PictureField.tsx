// A picture: chosen or dropped, taken up by the server, shown small; or taken away again.
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { PictureButton, usePictureUpload } from "./PictureButton";

interface Props {
  label: string;
  value: string;
  onChange: (source: string) => void;
}

export function PictureField({ label, value, onChange }: Props) {
  const upload = usePictureUpload(onChange);
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
        <PictureButton label={label} variant="outlined" color="inherit" upload={upload}>
          {value ? "Another" : "Choose a picture"}
        </PictureButton>
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
