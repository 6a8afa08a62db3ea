import { decodePDFRawStream, PDFDocument, PDFRawStream } from '@cantoo/pdf-lib';

/** Longer streams are pictures and fonts, which are not looked into. */
const longest = 4_000_000;

/** A PDF's objects and the start of its content streams as text, to look for words in; none when it cannot be opened. */
export async function objectTexts(bytes: Uint8Array): Promise<string[]> {
  const texts: string[] = [];
  try {
    const file = await PDFDocument.load(bytes, {
      ignoreEncryption: true,
      updateMetadata: false,
      throwOnInvalidObject: false,
    });
    for (const [, object] of file.context.enumerateIndirectObjects()) {
      if (!(object instanceof PDFRawStream)) {
        texts.push(object.toString().slice(0, longest));
        continue;
      }
      const dictionary = object.dict.toString();
      texts.push(dictionary);
      if (/\/Subtype\s*\/Image|\/FontFile|\/Length1|\/N\s+\d/.test(dictionary) || object.contents.length > longest)
        continue;
      const content = decodePDFRawStream(object).decode();
      texts.push(new TextDecoder('latin1').decode(content.subarray(0, longest)));
    }
  } catch {
    // Whatever it is, the PDF package that reads the page says so itself.
  }
  return texts;
}
