import { asProblem, type Schemas } from "../api/client";

/** Larger than any certificate; the server refuses it too. */
const MOST_BYTES = 1024 * 1024;

const KINDS: Record<string, string> = {
  pdf: "application/pdf",
  xlsx: "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet",
  ods: "application/vnd.oasis.opendocument.spreadsheet",
};

/** By its name: not every system knows what it is; what it holds the server looks at itself. */
const contentType = (file: File) =>
  KINDS[file.name.split(".").at(-1)?.toLowerCase() ?? ""] ?? "text/csv";

/** A certificate file taken apart by the server, or what is wrong with it. */
export async function readFile(
  file: File,
): Promise<{ file: Schemas["CertificateFile"] } | { message: string }> {
  if (file.size > MOST_BYTES) {
    const size = (file.size / MOST_BYTES).toFixed(0);
    return { message: `${size} MB is far more than a certificate; a file of up to 1 MB is taken` };
  }
  try {
    const response = await fetch("/api/v1/certificates/read", {
      method: "POST",
      headers: { "content-type": contentType(file) },
      body: file,
    });
    const read: unknown = await response.json();
    if (response.ok) return { file: read as Schemas["CertificateFile"] };
    return { message: asProblem(read, response.status).detail };
  } catch {
    return { message: "the server does not answer; the file is untouched, try again in a moment" };
  }
}
