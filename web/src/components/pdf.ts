/**
 * PDFs as the browser reads them. A large library, so whoever uses this is fetched when there is one to read.
 */
import * as pdfjs from "pdfjs-dist";
import workerUrl from "pdfjs-dist/build/pdf.worker.min.mjs?url";
import { useEffect, useState } from "react";
import { errorOf } from "../api/client";

pdfjs.GlobalWorkerOptions.workerSrc = workerUrl;

export type Pdf = pdfjs.PDFDocumentProxy;
export type PdfPage = pdfjs.PDFPageProxy;

/** The PDF at an address, and what went wrong with it. No address, no PDF. */
export function usePdf(address: string | null): { pdf: Pdf | null; problem: string } {
  const [read, setRead] = useState<{ of: string; pdf: Pdf | null; problem: string } | null>(null);
  useEffect(() => {
    if (!address) return;
    let gone = false;
    let made: Pdf | null = null;
    const load = async () => {
      const response = await fetch(address);
      if (!response.ok) throw await errorOf(response);
      made = await pdfjs.getDocument({ data: await response.arrayBuffer() }).promise;
      if (gone) void made.destroy();
      else setRead({ of: address, pdf: made, problem: "" });
    };
    load().catch(
      (error: unknown) =>
        !gone &&
        setRead({ of: address, pdf: null, problem: error instanceof Error ? error.message : String(error) }),
    );
    return () => {
      gone = true;
      void made?.destroy();
    };
  }, [address]);
  return read && read.of === address ? read : { pdf: null, problem: "" };
}
