import { useEffect, useRef, useState } from 'react';
import type { PDFDocumentProxy, RenderTask } from 'pdfjs-dist';
import { pageDestination } from '@elastic-folio/core';
import { fileUrl } from '../api/client.ts';

let library: Promise<typeof import('pdfjs-dist')> | null = null;
const pdfjs = () =>
  (library ??= import('pdfjs-dist').then((lib) => {
    lib.GlobalWorkerOptions.workerSrc = new URL('pdfjs-dist/build/pdf.worker.min.mjs', import.meta.url).toString();
    return lib;
  }));

/** A page of the document in a finished PDF, drawn by pdf.js: found by its name, since pages of cards may stand before it. */
export function PdfPage({ run, page, width, height, label }: { run: string; page: string; width: number; height: number; label: string }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const [pdf, setPdf] = useState<PDFDocumentProxy | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  useEffect(() => {
    let gone = false;
    let opened: PDFDocumentProxy | null = null;
    void pdfjs()
      .then((lib) => lib.getDocument({ url: fileUrl(run, 'document.pdf'), isEvalSupported: false }).promise)
      .then(
        (d) => {
          opened = d;
          if (gone) void d.destroy();
          else setPdf(d);
        },
        (e: Error) => setProblem(`The PDF cannot be shown: ${e.message}`),
      );
    return () => {
      gone = true;
      void opened?.destroy();
    };
  }, [run]);
  useEffect(() => {
    if (!pdf) return undefined;
    let task: RenderTask | null = null;
    let gone = false;
    void pdf
      .getDestination(pageDestination(page))
      .then(async (place) => pdf.getPage((await pdf.getPageIndex(place![0] as never)) + 1))
      .then((shown) => {
        const c = canvas.current;
        if (!c || gone) return;
        const ratio = window.devicePixelRatio;
        const viewport = shown.getViewport({ scale: (width / shown.getViewport({ scale: 1 }).width) * ratio });
        c.width = Math.round(viewport.width);
        c.height = Math.round(viewport.height);
        task = shown.render({ canvas: c, viewport });
        task.promise.then(
          () => c.setAttribute('data-drawn', page),
          () => undefined,
        );
      })
      .catch((e: Error) => {
        if (!gone) setProblem(`The page cannot be shown: ${e.message}`);
      });
    return () => {
      gone = true;
      task?.cancel();
    };
  }, [pdf, page, width]);
  if (problem) return <p className="warn">{problem}</p>;
  return <canvas ref={canvas} className="paper" style={{ width, height }} role="img" aria-label={label} />;
}
