import { memo } from "react";
import type { PlanFloor, Spot } from "../api/client";
import { tone } from "../app/theme";

const line = (from: Spot, to: Spot) => `M${from.x} ${from.y}L${to.x} ${to.y}`;

/** Walls, doors, windows, stairs and panels of a floor. */
export const PlanWalls = memo(function PlanWalls({ floor }: { floor: PlanFloor }) {
  return (
    <g fill="none" stroke={tone("ink")} strokeLinecap="square" pointerEvents="none">
      <path d={floor.walls.map((wall) => line(wall.from, wall.to)).join("")} strokeWidth={70} data-testid="walls" />
      {floor.openings.map((opening) => {
        const { from, to } = opening.stretch;
        if (opening.kind === "door" && opening.leaf) {
          const width = Math.hypot(to.x - from.x, to.y - from.y);
          return (
            <g key={opening.opening} data-opening="door">
              <path d={line(from, opening.leaf)} strokeWidth={26} />
              <path
                d={`M${opening.leaf.x} ${opening.leaf.y}A${width} ${width} 0 0 0 ${to.x} ${to.y}`}
                strokeWidth={10}
                strokeDasharray="40 40"
              />
            </g>
          );
        }
        if (opening.kind === "window")
          return (
            <g key={opening.opening} data-opening="window" strokeLinecap="butt">
              <path d={line(from, to)} strokeWidth={110} />
              <path d={line(from, to)} strokeWidth={80} stroke={tone("card")} />
              <path d={line(from, to)} strokeWidth={12} />
            </g>
          );
        return (
          <path
            key={opening.opening}
            data-opening="passage"
            d={line(from, to)}
            strokeWidth={14}
            strokeDasharray="60 60"
          />
        );
      })}
      {floor.stairs.map((stairs) => (
        <g key={`${stairs.stairs}${String(stairs.up)}`} transform={`translate(${stairs.at.x} ${stairs.at.y})`}>
          <path d={[0, 1, 2, 3, 4, 5].map((n) => `M-400 ${n * 180 - 450}h800`).join("")} strokeWidth={14} />
          <text
            y={720}
            textAnchor="middle"
            fontSize={170 * floor.symbol_scale}
            fill={tone("soft")}
            stroke="none"
            fontFamily="Atkinson Hyperlegible Next Variable"
          >
            {stairs.up ? "up" : "down"}
          </text>
        </g>
      ))}
      {floor.panels.map((panel) => (
        <g key={panel.panel} transform={`translate(${panel.at.x} ${panel.at.y})`}>
          <rect
            x={-200}
            y={0}
            width={400}
            height={140}
            fill={tone("pine")}
            stroke="none"
            transform={`rotate(${panel.turn})`}
          />
          <g transform={`rotate(${panel.turn}) translate(0 300) rotate(${-panel.turn})`}>
            <text
              y={60}
              textAnchor="middle"
              fontSize={170 * floor.symbol_scale}
              fill={tone("ink")}
              stroke="none"
              fontFamily="Atkinson Hyperlegible Next Variable"
            >
              {panel.name}
            </text>
          </g>
        </g>
      ))}
    </g>
  );
});
