'use client';

import { Maximize, Minus, Plus } from 'lucide-react';
import { useEffect, useRef, type KeyboardEvent, type ReactNode } from 'react';
import {
  MiniMap,
  TransformComponent,
  TransformWrapper,
  type ReactZoomPanPinchRef,
} from 'react-zoom-pan-pinch';
import { useBox } from './useBox';

const KEY = 'flex size-11 items-center justify-center border-[1.5px] border-edge bg-sheet';
const STEP = 90;

/**
 * A figure larger than its frame: dragged, pinched, wheeled or moved by the arrow keys, + and − and 0. It begins fitted to
 * the frame, and shows an overview while it is larger.
 */
export function PanZoom({
  width,
  height,
  label,
  children,
  least = 0.15,
}: {
  /** Size of the figure, px. */
  width: number;
  height: number;
  label: string;
  children: ReactNode;
  least?: number;
}) {
  const frame = useRef<HTMLDivElement>(null);
  const hold = useRef<ReactZoomPanPinchRef>(null);
  const box = useBox(frame);
  const fit = Math.max(least, Math.min(1, (box.width - 8) / width, (box.height - 8) / height));
  useEffect(() => {
    // Fitted anew whenever the figure or its frame changes size.
    hold.current?.centerView(fit, 0);
  }, [fit, width, height]);
  const onKey = (event: KeyboardEvent) => {
    const tools = hold.current;
    if (!tools || event.target !== event.currentTarget) return;
    const { positionX, positionY, scale } = tools.instance.state;
    const by: Record<string, [number, number]> = {
      ArrowLeft: [STEP, 0],
      ArrowRight: [-STEP, 0],
      ArrowUp: [0, STEP],
      ArrowDown: [0, -STEP],
    };
    const shift = by[event.key];
    if (shift) tools.setTransform(positionX + shift[0], positionY + shift[1], scale, 80);
    else if (event.key === '+' || event.key === '=') tools.zoomIn(0.3);
    else if (event.key === '-') tools.zoomOut(0.3);
    else if (event.key === '0') tools.centerView(fit);
    else return;
    event.preventDefault();
    event.stopPropagation();
  };
  return (
    <div
      ref={frame}
      role="group"
      aria-label={`${label}; arrow keys move it, plus and minus size it, 0 fits it`}
      tabIndex={0}
      onKeyDown={onKey}
      className="relative h-full w-full overflow-hidden bg-sheet"
      data-fit={fit.toFixed(2)}
    >
      <TransformWrapper
        ref={hold}
        minScale={Math.min(least, fit)}
        maxScale={3}
        initialScale={fit}
        limitToBounds={false}
        centerOnInit
        wheel={{ activationKeys: ['Control'] }}
        doubleClick={{ disabled: true }}
      >
        <TransformComponent wrapperStyle={{ width: '100%', height: '100%' }}>{children}</TransformComponent>
        <div className="absolute right-2 bottom-2 flex bg-sheet print:hidden">
          <button type="button" className={KEY} aria-label="Larger" onClick={() => hold.current?.zoomIn(0.3)}>
            <Plus size={20} aria-hidden />
          </button>
          <button
            type="button"
            className={`${KEY} -ml-[1.5px]`}
            aria-label="Smaller"
            onClick={() => hold.current?.zoomOut(0.3)}
          >
            <Minus size={20} aria-hidden />
          </button>
          <button
            type="button"
            className={`${KEY} -ml-[1.5px]`}
            aria-label="Fit it in"
            onClick={() => hold.current?.centerView(fit)}
          >
            <Maximize size={19} aria-hidden />
          </button>
        </div>
        {fit < 0.72 ? (
          <div className="absolute bottom-2 left-2 overflow-hidden border-[1.5px] border-edge bg-sheet max-tablet:hidden print:hidden">
            <MiniMap width={190} height={120} borderColor="var(--pencil)">
              {children}
            </MiniMap>
          </div>
        ) : null}
      </TransformWrapper>
    </div>
  );
}
