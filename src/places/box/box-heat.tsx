'use client';

import { useState } from 'react';
import type { Inside } from '@/core/box/block';
import { outsideFigure } from '@/core/box/outside';
import { formatQuantity } from '@/core/quantity/format';
import { FigureButton } from '@/ui/figure-button';
import { roomPath } from '@/ui/places';
import { useDesign, useEdit, useView } from '@/ui/session';
import { Working } from '@/ui/working';

/** The faces of this box that give heat away, beside what Heat reckons with. */
export function BoxHeat({ inside }: { inside: Inside }) {
  const { heat } = useDesign();
  const edit = useEdit();
  const id = useView((s) => s.id);
  const [open, setOpen] = useState<string | null>(null);
  const figure = outsideFigure(inside);
  const same = heat.box !== 'open' && Math.abs(heat.boxCm2 - figure.value) < 1;
  return (
    <section aria-label="Heat of this box" className="border-t border-rule pt-2">
      <h2 className="text-[15px] font-semibold">What it gives away</h2>
      <p className="text-[14px]">
        <FigureButton figure={figure} open={open} onOpen={setOpen} /> of free faces.{' '}
        {same ? (
          <>
            <a href={roomPath(id, 'heat')}>Heat</a> reckons with this box.
          </>
        ) : (
          <>
            <a href={roomPath(id, 'heat')}>Heat</a> reckons with{' '}
            {heat.box === 'open' ? 'an open frame' : formatQuantity(heat.boxCm2, 'cm²')}.
          </>
        )}
      </p>
      {!same && (
        <button
          type="button"
          className="btn mt-1"
          onClick={() =>
            edit({ heat: { boxCm2: figure.value, ...(heat.box === 'open' ? { box: 'closed' as const } : {}) } })
          }
        >
          Let Heat reckon with this box
        </button>
      )}
      {open && <Working figure={figure} />}
    </section>
  );
}
