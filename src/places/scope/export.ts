'use client';

import type { Shown } from './channel';

/** The shown traces as a table: one row a sample, time first. Numbers with points, commas between them. */
export function tracesCsv(shown: readonly Shown[], stepS: number): string {
  const heads = ['time_s', ...shown.map((s) => `"${s.trace.label.replace(/"/g, '""')} (${s.trace.unit})"`)];
  const rows = (shown[0]?.values ?? []).map((_, k) =>
    [k * stepS, ...shown.map((s) => s.values[k]!)].map((v) => Number(v.toPrecision(7))).join(','),
  );
  return `${[heads.join(','), ...rows].join('\r\n')}\r\n`;
}

/** The screen as a drawing of its own: colours written out, font named, paper behind it. */
export function standaloneSvg(svg: SVGSVGElement): string {
  const copy = svg.cloneNode(true) as SVGSVGElement;
  const style = getComputedStyle(document.documentElement);
  const solid = (text: string) =>
    text.replace(/var\((--[a-z-]+)\)/g, (_, name: string) => style.getPropertyValue(name).trim());
  copy.setAttribute('xmlns', 'http://www.w3.org/2000/svg');
  copy.setAttribute('font-family', 'sans-serif');
  for (const element of [copy, ...copy.querySelectorAll('*')]) {
    for (const { name, value } of [...element.attributes]) {
      if (value.includes('var(')) element.setAttribute(name, solid(value));
      if (['class', 'tabindex', 'role'].includes(name) || name.startsWith('data-')) element.removeAttribute(name);
    }
  }
  const paper = document.createElementNS('http://www.w3.org/2000/svg', 'rect');
  paper.setAttribute('width', '100%');
  paper.setAttribute('height', '100%');
  paper.setAttribute('fill', solid('var(--paper)'));
  copy.prepend(paper);
  return new XMLSerializer().serializeToString(copy);
}

/** The screen as a picture, twice its size. */
export async function screenPng(svg: SVGSVGElement): Promise<Blob> {
  const image = new Image();
  image.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(standaloneSvg(svg))}`;
  await image.decode();
  const canvas = document.createElement('canvas');
  canvas.width = 2 * svg.clientWidth;
  canvas.height = 2 * svg.clientHeight;
  canvas.getContext('2d')!.drawImage(image, 0, 0, canvas.width, canvas.height);
  return new Promise((resolve, reject) =>
    canvas.toBlob(
      (blob) => (blob ? resolve(blob) : reject(new Error('no picture came out of the screen'))),
      'image/png',
    ),
  );
}
