import Typography from "@mui/material/Typography";
import type { ReactNode } from "react";
import { tone } from "../../app/theme";
import { Block } from "../../parts/Block";

interface SaidProps {
  over: string;
  title: string;
  why?: string;
  loud?: boolean;
  children?: ReactNode;
}

/** One instruction, large. */
export function Said({ over, title, why, loud = false, children }: SaidProps) {
  return (
    <Block loud={loud}>
      <Typography variant="h3" component="p" sx={{ color: loud ? tone("blaze") : tone("pine"), mb: 0.5 }}>
        {over}
      </Typography>
      <Typography variant="h1" sx={{ mb: 1 }} data-testid="instruction">
        {title}
      </Typography>
      {why && <Typography sx={{ mb: children ? 1.5 : 0 }}>{why}</Typography>}
      {children}
    </Block>
  );
}
