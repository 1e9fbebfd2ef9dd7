import Button from "@mui/material/Button";
import Stack from "@mui/material/Stack";
import Typography from "@mui/material/Typography";
import { Link, useRouteError } from "react-router";

export function LostPage() {
  const error = useRouteError();
  return (
    <Stack component="main" spacing={2} sx={{ p: 4, alignItems: "flex-start", maxWidth: 620 }}>
      <Typography variant="h1">{error ? "This screen failed" : "There is no such page"}</Typography>
      <Typography>
        What was recorded is kept.{" "}
        {error instanceof Error ? `The screen said: ${error.message}.` : "Go back to your homes."}
      </Typography>
      <Button variant="contained" component={Link} to="/">
        Back to the homes
      </Button>
    </Stack>
  );
}
