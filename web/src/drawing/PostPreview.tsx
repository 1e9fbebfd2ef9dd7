import Box from "@mui/material/Box";
import type { PanelView } from "../api/client";
import { BladeShape, OpenShape } from "./BladeShape";
import { Handles, Housings, Mast, Patterns, SharedNeutrals } from "./Mast";
import { measures } from "./measures";

/** The post as it would be: a picture, nothing in it can be pressed. */
export function PostPreview({ post }: { post: PanelView }) {
  const m = measures(post, true);
  return (
    <Box sx={{ maxWidth: m.width * 1.15, mx: "auto" }}>
      <svg
        viewBox={`0 0 ${m.width} ${m.height}`}
        width="100%"
        role="img"
        aria-label={`${post.panel.name} as it would be: ${post.breakers.length} breakers`}
      >
        <Patterns />
        <Mast post={post} m={m} />
        <SharedNeutrals post={post} m={m} />
        {post.open.map((open) => (
          <OpenShape key={open.number} open={open} m={m} selected={false} />
        ))}
        {post.breakers.map((blade) => (
          <g key={blade.breaker} data-preview={blade.number}>
            <BladeShape blade={blade} m={m} selected={false} worry={null} />
            <Handles blade={blade} m={m} />
          </g>
        ))}
        <Housings post={post} m={m} />
      </svg>
    </Box>
  );
}
