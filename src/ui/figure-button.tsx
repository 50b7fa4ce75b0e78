import { figureText, type Figure } from '@/core/study/figure';

/** A number in a table as the button of its working. */
export function FigureButton({
  figure,
  text = figureText(figure),
  open,
  onOpen,
}: {
  figure: Figure;
  /** The number as it is printed here. */
  text?: string;
  /** Id of the figure whose working stands open. */
  open: string | null;
  onOpen(id: string | null): void;
}) {
  const on = figure.id === open;
  return (
    <button
      type="button"
      className={`num min-h-[26px] ${on ? '!border-solid !border-volt' : ''}`}
      aria-label={`${figure.label}: ${text}`}
      aria-pressed={on}
      onClick={() => onOpen(on ? null : figure.id)}
    >
      {text}
    </button>
  );
}
