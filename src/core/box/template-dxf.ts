import Drawing from 'dxf-writer';
import type { Template } from './template';
import { templateStrokes, type Layer } from './template-strokes';

const LAYERS: Readonly<Record<Layer, number>> = {
  cut: Drawing.ACI.RED,
  mark: Drawing.ACI.CYAN,
  text: Drawing.ACI.WHITE,
};

/** A template for a machine: millimetres, what is cut through on a layer of its own. */
export function templateDxf(template: Template): string {
  const d = new Drawing();
  d.setUnits('Millimeters');
  for (const [layer, colour] of Object.entries(LAYERS)) d.addLayer(layer, colour, 'CONTINUOUS');
  for (const s of templateStrokes(template)) {
    d.setActiveLayer(s.layer);
    if (s.kind === 'line') d.drawLine(s.x1, s.y1, s.x2, s.y2);
    else if (s.kind === 'circle') d.drawCircle(s.x, s.y, s.r);
    else d.drawText(s.x, s.y, s.mm, 0, s.text, s.middle ? 'center' : 'left', 'baseline');
  }
  return d.toDxfString();
}
