import type { ReactNode } from 'react';

/**
 * Text on the drawing with a rim in the paper's colour, so that no line runs through it. A number opens its working
 * when clicked; by keyboard the same figure stands in the drawer below.
 */
export function Tag({
  x,
  y,
  anchor = 'start',
  colour,
  size = 12.5,
  bold = false,
  onOpen,
  children,
}: {
  x: number;
  y: number;
  anchor?: 'start' | 'middle' | 'end';
  colour: string;
  size?: number;
  bold?: boolean;
  onOpen?: () => void;
  children: ReactNode;
}) {
  return (
    <text
      data-tag={size}
      onClick={onOpen}
      className={onOpen ? 'cursor-pointer hover:underline' : undefined}
      x={x}
      y={y}
      textAnchor={anchor}
      fontSize={size}
      fontWeight={bold ? 650 : 500}
      fill={colour}
      stroke="var(--paper)"
      strokeWidth="4"
      strokeLinejoin="round"
      paintOrder="stroke"
    >
      {children}
    </text>
  );
}
