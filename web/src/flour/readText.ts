/** A file, or the beginning of one, as text: UTF-8, or Windows-1252 as old spreadsheets write it. */
export async function readText(file: Blob): Promise<string> {
  const bytes = await file.arrayBuffer();
  try {
    // As a stream, so that a letter cut in two at the end is no fault.
    return new TextDecoder("utf-8", { fatal: true }).decode(bytes, { stream: true });
  } catch {
    return new TextDecoder("windows-1252").decode(bytes);
  }
}
