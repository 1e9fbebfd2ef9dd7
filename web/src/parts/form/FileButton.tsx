import Button from "@mui/material/Button";

interface Props {
  words: string;
  label: string;
  accept: string;
  onFile: (file: File) => void;
}

/** A button that takes a file; the same file can be taken again. */
export function FileButton({ words, label, accept, onFile }: Props) {
  return (
    <Button component="label" variant="outlined">
      {words}
      <input
        type="file"
        aria-label={label}
        accept={accept}
        hidden
        onChange={(event) => {
          const file = event.target.files?.[0];
          if (file) onFile(file);
          event.target.value = "";
        }}
      />
    </Button>
  );
}
