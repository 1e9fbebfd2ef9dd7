import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Menu from "@mui/material/Menu";
import MenuItem from "@mui/material/MenuItem";
import Typography from "@mui/material/Typography";
import useMediaQuery from "@mui/material/useMediaQuery";
import { useColorScheme, useTheme } from "@mui/material/styles";
import { useState } from "react";
import { Link } from "react-router";
import type { HomeOverview } from "../api/client";
import { OffNowChip } from "./OffNowChip";
import { MODES } from "./modes";
import { People } from "./People";
import { tone } from "./theme";
import { useSignOut } from "./useSignOut";

interface Props {
  home: HomeOverview | undefined;
  onFind?: () => void;
  onKeys?: () => void;
}

/** What is always in sight: whose home, and what is off now. */
export function TopBar({ home, onFind, onKeys }: Props) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const { mode, setMode } = useColorScheme();
  const wide = useMediaQuery(useTheme().breakpoints.up("md"));
  const close = () => setAnchor(null);
  const signOut = useSignOut();
  return (
    <Box
      component="header"
      sx={{
        position: "sticky",
        top: 0,
        zIndex: 20,
        bgcolor: tone("bar"),
        color: "#fff",
        minHeight: 56,
        px: { xs: 1.5, md: 2.5 },
        display: "flex",
        alignItems: "center",
        gap: { xs: 0, md: 2 },
      }}
    >
      <Box
        component={Link}
        to="/"
        aria-label="Wayfinder, all homes"
        sx={{
          color: "#fff",
          textDecoration: "none",
          display: "flex",
          gap: 1.5,
          alignItems: "center",
          minHeight: 44,
          minWidth: 44,
        }}
      >
        <svg width="18" height="22" viewBox="0 0 18 22" aria-hidden="true">
          <path d="M0 1h11l7 10-7 10H0z" fill="#f08a55" />
        </svg>
        <Typography
          component="span"
          sx={{
            fontFamily: "Overpass Variable",
            fontWeight: 800,
            fontSize: "1.3rem",
            display: { xs: "none", sm: "inline" },
          }}
        >
          Wayfinder
        </Typography>
      </Box>
      <Typography component="span" noWrap sx={{ fontWeight: 500, minWidth: 0, flex: { xs: 1, md: "none" } }}>
        {home?.name ?? ""}
      </Typography>
      <Box sx={{ flex: { md: 1 } }} />
      {home && wide && <People home={home.id} />}
      {home && <OffNowChip off={home.off_now} />}
      {/* On a phone these are on the page "More" of the bottom bar. */}
      {(wide || !onFind) && (
        <>
          {onFind && (
            <Button color="inherit" onClick={onFind} sx={{ minWidth: 0, px: { xs: 0.5, md: 1.5 } }}>
              Find
            </Button>
          )}
          <Button
            color="inherit"
            onClick={(event) => setAnchor(event.currentTarget)}
            aria-haspopup="menu"
            sx={{ minWidth: 56 }}
          >
            Settings
          </Button>
          <Menu anchorEl={anchor} open={anchor !== null} onClose={close}>
            {MODES.map(([value, words]) => (
              <MenuItem
                key={value}
                selected={mode === value}
                onClick={() => {
                  setMode(value);
                  close();
                }}
              >
                Colors: {words.charAt(0).toLowerCase() + words.slice(1)}
              </MenuItem>
            ))}
            {onKeys && (
              <MenuItem
                onClick={() => {
                  close();
                  onKeys();
                }}
              >
                Show the keys
              </MenuItem>
            )}
            <MenuItem component={Link} to="/" onClick={close}>
              All homes
            </MenuItem>
            {signOut && <MenuItem onClick={signOut}>Sign out</MenuItem>}
          </Menu>
        </>
      )}
    </Box>
  );
}
