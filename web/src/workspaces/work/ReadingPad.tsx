import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import type { JobReading } from "../../api/client";
import { tone } from "../../app/theme";

interface Props {
  reading: JobReading;
  left: number;
  onRecord: (value: number) => void;
}

/** Keys for gloves: what the meter shows, and a button that repeats what it will record. */
export function ReadingPad({ reading, left, onRecord }: Props) {
  const [text, setText] = useState("");
  const value = text === "" || text === "." ? null : Number(text);
  const type = (key: string) => {
    if (key === "." && text.includes(".")) return;
    if (text.length < 6) setText(text + key);
  };
  const key = (name: string) => (
    <Button
      key={name}
      variant="outlined"
      color="inherit"
      onClick={() => type(name)}
      sx={{ minHeight: 56, fontSize: "1.3rem", bgcolor: "background.paper", minWidth: 0 }}
    >
      {name}
    </Button>
  );
  return (
    <Box
      component="form"
      aria-label={`Reading: ${reading.name}`}
      data-expect={reading.expect}
      onSubmit={(event) => {
        event.preventDefault();
        if (value !== null) onRecord(value);
      }}
      sx={{ bgcolor: tone("rail"), p: 1, borderRadius: 1, maxWidth: 420 }}
    >
      <Box
        component="label"
        sx={{
          display: "flex",
          alignItems: "baseline",
          gap: 1,
          border: `2px solid ${tone("ink")}`,
          borderRadius: 1,
          bgcolor: "background.paper",
          px: 1.5,
          py: 0.5,
          mb: 1,
        }}
      >
        <Box
          component="input"
          value={text}
          inputMode="none"
          autoComplete="off"
          aria-label={`${reading.name}, ${reading.unit}`}
          onChange={(event) => setText(event.target.value.replace(/[^0-9.]/g, "").slice(0, 6))}
          sx={{
            font: "inherit",
            fontFamily: "Overpass Variable",
            fontWeight: 700,
            fontSize: "2rem",
            width: "4.2em",
            minHeight: 44,
            border: 0,
            color: "inherit",
            bgcolor: "transparent",
          }}
        />
        <b>{reading.unit}</b>
        <Typography component="span" variant="body2" color="text.secondary" sx={{ ml: "auto" }}>
          {reading.expect}
          {left > 1 && `; ${left} to go`}
        </Typography>
      </Box>
      <Box sx={{ display: "grid", gridTemplateColumns: "repeat(4, minmax(0, 1fr))", gap: 1 }}>
        {["1", "2", "3"].map(key)}
        <Button variant="outlined" color="inherit" onClick={() => setText("")} sx={{ minHeight: 56, minWidth: 0 }}>
          Erase
        </Button>
        {["4", "5", "6"].map(key)}
        <Button
          type="submit"
          variant="contained"
          disabled={value === null}
          data-main
          sx={{ gridRow: "span 2", minWidth: 0, lineHeight: 1.2 }}
        >
          Record {value === null ? "" : `${value} ${reading.unit}`}
        </Button>
        {["7", "8", "9"].map(key)}
        {key(".")}
        {key("0")}
      </Box>
    </Box>
  );
}
