/** For those who hear the screen: said, not shown. */
export const hidden = {
  position: "absolute",
  width: 1,
  height: 1,
  overflow: "hidden",
  clipPath: "inset(50%)",
} as const;
