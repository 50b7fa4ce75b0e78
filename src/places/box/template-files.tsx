'use client';

import { Download } from 'lucide-react';
import type { BoxPlan } from '@/core/box/box-plan';
import { drillTemplates, labelTemplate, type Template } from '@/core/box/template';
import { templateSvg } from '@/core/box/template-svg';
import { download, fileName, save } from '@/ui/download';

/** The faces at their own size: to drill by, and to read. */
export function TemplateFiles({ plan, name }: { plan: BoxPlan; name: string }) {
  const drilled = () => drillTemplates(plan, name);
  const labels = () => (['front', 'rear'] as const).map((face) => labelTemplate(plan.placed, plan.inside, face, name));
  const file = fileName(name);
  const pdf = async (templates: readonly Template[], what: string) => {
    const { templatePdf } = await import('@/core/box/template-pdf');
    const bytes = await templatePdf(templates, `${name}: ${what}`);
    save(`${file}-${what}.pdf`, new Blob([bytes.slice().buffer], { type: 'application/pdf' }));
  };
  const dxf = async () => {
    const { templateDxf } = await import('@/core/box/template-dxf');
    for (const t of drilled()) download(`${file}-${t.face}.dxf`, templateDxf(t), 'image/vnd.dxf');
  };
  const svg = () => {
    for (const t of drilled()) download(`${file}-${t.face}.svg`, templateSvg(t), 'image/svg+xml');
  };
  return (
    <section aria-label="Template">
      <h2 className="text-[15px] font-semibold">Template, 1 : 1</h2>
      <p className="text-[13.5px] text-quiet">
        Front and rear from outside, the floor from above. Print without fitting to the page, and measure its 100 mm
        line first.
      </p>
      <div className="mt-1.5 flex flex-wrap gap-1.5">
        <button type="button" className="btn" onClick={() => void pdf(drilled(), 'template')}>
          <Download size={15} /> PDF
        </button>
        <button type="button" className="btn" onClick={svg}>
          <Download size={15} /> SVG
        </button>
        <button type="button" className="btn" onClick={() => void dxf()}>
          <Download size={15} /> DXF
        </button>
        <button type="button" className="btn" onClick={() => void pdf(labels(), 'labels')}>
          <Download size={15} /> Labels
        </button>
      </div>
    </section>
  );
}
