import type { PDFDocumentProxy } from 'pdfjs-dist';
import type { Assets } from '../assets.ts';
import { FileRefused } from '../refusal.ts';
import type { Engine } from './packed.ts';
import { withRebuiltTable } from './rebuild.ts';

let engine: Promise<Engine> | null = null;

/** The PDF package, with its own worker in this same thread: we are in a worker already. */
function loadEngine(): Promise<Engine> {
  engine ??= (async () => {
    const scope = globalThis as { pdfjsWorker?: unknown; Float16Array?: unknown };
    // Where it can, the package hands glyphs over in half precision, which is off by 0.05 mm in large text.
    scope.Float16Array = undefined;
    // @ts-expect-error the package has types for its main module only
    scope.pdfjsWorker = await import('pdfjs-dist/legacy/build/pdf.worker.mjs');
    return import('pdfjs-dist/legacy/build/pdf.mjs') as Promise<Engine>;
  })();
  return engine;
}

/** What is done with a PDF that is open. */
type Use<T> = (pdf: PDFDocumentProxy, engine: Engine, rebuilt: boolean) => Promise<T>;

/**
 * Opens a PDF and hands it to `use`, then lets go of it. One whose table of objects is missing or wrong is given a new
 * one, which `use` is told.
 * @throws FileRefused when it is damaged or protected by a password
 */
export async function withPdf<T>(bytes: Uint8Array, assets: Assets, use: Use<T>): Promise<T> {
  try {
    return await opened(bytes, assets, (pdf, engine) => use(pdf, engine, false));
  } catch (error) {
    const rebuilt = error instanceof DamagedPdf ? withRebuiltTable(bytes) : null;
    if (!rebuilt) throw error;
    return opened(rebuilt, assets, (pdf, engine) => use(pdf, engine, true));
  }
}

class DamagedPdf extends FileRefused {}

async function opened<T>(
  bytes: Uint8Array,
  assets: Assets,
  use: (pdf: PDFDocumentProxy, engine: Engine) => Promise<T>,
): Promise<T> {
  const loaded = await loadEngine();
  /** What the package calls a factory: fetches by kind and file name. */
  class AssetFactory {
    async fetch({ kind, filename }: { kind: string; filename: string }): Promise<Uint8Array> {
      const folder = kind === 'cMapUrl' ? 'cmaps' : kind === 'standardFontDataUrl' ? 'standard_fonts' : null;
      if (!folder) throw new Error(`${filename} does not ship`);
      return assets(`${folder}/${filename}`);
    }
  }
  const options = {
    data: bytes.slice(),
    disableFontFace: true,
    fontExtraProperties: true,
    useSystemFonts: false,
    isEvalSupported: false,
    isOffscreenCanvasSupported: false,
    isImageDecoderSupported: false,
    useWorkerFetch: false,
    useWasm: false,
    standardFontDataUrl: 'standard_fonts/',
    cMapUrl: 'cmaps/',
    BinaryDataFactory: AssetFactory,
    verbosity: 0,
  };
  const task = loaded.getDocument(options);
  try {
    return await use(await task.promise, loaded);
  } catch (error) {
    const { name } = error as Error;
    if (name === 'PasswordException') {
      throw new FileRefused('The PDF is protected by a password. Save it without one, and bring it in again.');
    }
    if (name === 'InvalidPDFException' || name === 'FormatError' || name === 'UnknownErrorException') {
      throw new DamagedPdf('The PDF is damaged and cannot be opened. Save or send it again.');
    }
    throw error;
  } finally {
    await task.destroy();
  }
}
