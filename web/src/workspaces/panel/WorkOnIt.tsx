import Button from "@mui/material/Button";
import Menu from "@mui/material/Menu";
import MenuItem from "@mui/material/MenuItem";
import { useState } from "react";
import { useNavigate } from "react-router";
import type { BreakerView, Job } from "../../api/client";
import { useBeginJob } from "../../app/useBeginJob";

interface Props {
  home: string;
  panel: string;
  breaker: BreakerView;
}

/** Work on a breaker: a job sheet at once, or a wish whose ways are looked for. */
export function WorkOnIt({ home, panel, breaker }: Props) {
  const [menu, setMenu] = useState<HTMLElement | null>(null);
  const begin = useBeginJob(home);
  const go = useNavigate();
  const job = (work: Job) => {
    setMenu(null);
    void begin(work);
  };
  const wish = (said: string) => {
    setMenu(null);
    void go(`/h/${home}/work?${new URLSearchParams({ wish: said, panel }).toString()}`);
  };
  const { breaker: id, amps, protection, number } = breaker;
  return (
    <>
      {breaker.state === "tripped" && (
        <Button variant="contained" onClick={() => job({ job: "reset", breaker: id })}>
          Reset it, step by step
        </Button>
      )}
      <Button variant="outlined" aria-haspopup="menu" onClick={(event) => setMenu(event.currentTarget)}>
        Work on it
      </Button>
      <Menu anchorEl={menu} open={menu !== null} onClose={() => setMenu(null)}>
        <MenuItem
          onClick={() => job({ job: "panel", panel, moves: [{ does: "replace", breaker: id, amps, protection }] })}
        >
          Replace it by one of the same kind
        </MenuItem>
        <MenuItem onClick={() => job({ job: "panel", panel, moves: [{ does: "tighten", breaker: id }] })}>
          Tighten its terminals
        </MenuItem>
        <MenuItem onClick={() => wish(`GFCI for ${number}`)}>Find ways to a GFCI</MenuItem>
        <MenuItem onClick={() => wish(`AFCI for ${number}`)}>Find ways to an AFCI</MenuItem>
        {breaker.poles.length === 1 && (
          <MenuItem onClick={() => wish(`make ${number} 240 V`)}>Find ways to 240 V</MenuItem>
        )}
        <MenuItem onClick={() => wish(`replace ${number}`)}>Find ways to another breaker</MenuItem>
      </Menu>
    </>
  );
}
