'use client';

import { Chart, type ChartConfiguration, type ChartType } from 'chart.js';
import { useEffect, useRef, type RefObject } from 'react';
import { onTheme } from './theme';

/** A colour of the house by its name, as the theme of the moment has it. */
export type Colour = (name: '--ink' | '--rule' | '--edge' | '--volt' | '--ember' | '--fail') => string;

/**
 * Draws a chart on the canvas the returned ref is given to; anew when `make` is another one, and in the other colours
 * when the theme changes. `make` should be held (useCallback) by what it draws.
 */
export function useChart<T extends ChartType>(
  make: (colour: Colour) => ChartConfiguration<T>,
): RefObject<HTMLCanvasElement | null> {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const page = document.documentElement;
    const drawn = () => {
      const style = getComputedStyle(page);
      const config = make((name) => style.getPropertyValue(name).trim());
      // Axes take their type from here alone.
      Object.assign(Chart.defaults.font, { family: getComputedStyle(document.body).fontFamily, size: 13 });
      const plain = { animation: false, maintainAspectRatio: false };
      return new Chart(canvas.current!, { ...config, options: { ...plain, ...config.options } } as ChartConfiguration);
    };
    let chart = drawn();
    const end = onTheme(() => {
      chart.destroy();
      chart = drawn();
    });
    return () => {
      end();
      chart.destroy();
    };
  }, [make]);
  return canvas;
}
