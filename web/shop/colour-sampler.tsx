import { useEffect, useRef, useState } from 'react';
import styled from 'styled-components';
import { colour, radius, space, type } from '../tokens.js';
import { Button, WordButton } from '../ui/button.js';
import { FileButton } from '../ui/file-button.js';

const WIDEST = 420;
/** The colour is the middle of so many pixels each way, so that one grain of the photograph does not decide. */
const REACH = 4;

/** The colour of a film taken out of a photograph of it. The photograph stays on this device. */
export function ColourSampler({ onPick }: { readonly onPick: (hex: string) => void }) {
  const [bitmap, setBitmap] = useState<ImageBitmap | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const open = async (chosen: File) => {
    try {
      setBitmap(await createImageBitmap(chosen, { resizeWidth: WIDEST, resizeQuality: 'medium' }));
      setProblem(null);
    } catch {
      setProblem(`${chosen.name} is no photograph that can be shown here.`);
    }
  };
  return (
    <>
      <FileButton label="Photograph of the film" accept="image/*" as={WordButton} onFile={(photo) => void open(photo)}>
        from a photograph
      </FileButton>
      {problem && <span role="alert">{problem}</span>}
      {bitmap && <Sampling bitmap={bitmap} onPick={onPick} onClose={() => setBitmap(null)} />}
    </>
  );
}

function Sampling({
  bitmap,
  onPick,
  onClose,
}: {
  readonly bitmap: ImageBitmap;
  readonly onPick: (hex: string) => void;
  readonly onClose: () => void;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const [at, setAt] = useState({ x: Math.round(bitmap.width / 2), y: Math.round(bitmap.height / 2) });
  useEffect(() => {
    canvas.current!.getContext('2d')!.drawImage(bitmap, 0, 0);
    canvas.current!.focus();
  }, [bitmap]);
  const take = (x: number, y: number) => {
    const to = {
      x: Math.min(bitmap.width - 1, Math.max(0, Math.round(x))),
      y: Math.min(bitmap.height - 1, Math.max(0, Math.round(y))),
    };
    setAt(to);
    const { data } = canvas
      .current!.getContext('2d')!
      .getImageData(to.x - REACH, to.y - REACH, 2 * REACH + 1, 2 * REACH + 1);
    onPick(middleOf(data));
  };
  const moves: Readonly<Record<string, readonly [number, number]>> = {
    ArrowLeft: [-5, 0],
    ArrowRight: [5, 0],
    ArrowUp: [0, -5],
    ArrowDown: [0, 5],
  };
  return (
    <Box>
      <p>Press where the film is in even light. Arrow keys move the place.</p>
      <Stage>
        <canvas
          ref={canvas}
          width={bitmap.width}
          height={bitmap.height}
          tabIndex={0}
          role="img"
          aria-label="Photograph of the film: press a place to take its colour"
          onClick={(event) => {
            const box = event.currentTarget.getBoundingClientRect();
            take(
              ((event.clientX - box.left) / box.width) * bitmap.width,
              ((event.clientY - box.top) / box.height) * bitmap.height,
            );
          }}
          onKeyDown={(event) => {
            const move = moves[event.key];
            if (!move) return;
            event.preventDefault();
            take(at.x + move[0], at.y + move[1]);
          }}
        />
        <i aria-hidden style={{ left: `${(at.x / bitmap.width) * 100}%`, top: `${(at.y / bitmap.height) * 100}%` }} />
      </Stage>
      <Button onPress={onClose}>Done</Button>
    </Box>
  );
}

/** The median of each channel. */
function middleOf(data: Uint8ClampedArray): string {
  const channel = (offset: number) => {
    const values = Array.from({ length: data.length / 4 }, (_, i) => data[i * 4 + offset]!).sort((a, b) => a - b);
    return values[Math.floor(values.length / 2)]!;
  };
  return `#${[0, 1, 2].map((offset) => channel(offset).toString(16).padStart(2, '0')).join('')}`;
}

const Box = styled.div`
  position: absolute;
  z-index: 4;
  right: ${space.l};
  max-width: calc(100vw - 24px);
  display: grid;
  gap: ${space.s};
  padding: ${space.m};
  font-size: ${type.small};
  background: ${colour.raised};
  border: 1px solid ${colour.line};
  border-radius: ${radius.m};
  box-shadow: 0 10px 34px ${colour.shadow};
`;
const Stage = styled.div`
  position: relative;
  line-height: 0;
  canvas {
    max-width: 100%;
    cursor: crosshair;
  }
  canvas:focus-visible {
    outline: 2.5px solid ${colour.accent};
    outline-offset: 2px;
  }
  i {
    position: absolute;
    width: 18px;
    height: 18px;
    margin: -9px 0 0 -9px;
    border: 2px solid #fff;
    outline: 1.5px solid #000;
    border-radius: 50%;
    pointer-events: none;
  }
`;
