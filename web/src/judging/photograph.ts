import type { Schemas } from "../api/client";

/** The kinds that are taken. */
export const KINDS = ["image/jpeg", "image/png", "image/webp"];
/** Pixels along the longer side that show every cell. */
const LONGER_SIDE = 1600;
const QUALITY = 0.85;

/** What a photograph shows, in words. */
export const VIEWS: Record<Schemas["PhotographView"], string> = {
  cut_face: "cut face",
  whole_loaf: "whole loaf",
};

/** Where a photograph's content lies. */
export const addressOf = ({ hash }: Schemas["SamplePhotograph"]) => `/api/v1/photographs/${hash}`;

/**
 * A photograph as it is sent, in base64: small enough, and drawn anew, so that where and when a
 * camera took it stays behind.
 */
export async function smaller(file: File): Promise<{ content: string } | { refused: string }> {
  if (!KINDS.includes(file.type))
    return { refused: `${file.name} is not a photograph: JPEG, PNG or WebP is taken` };
  const picture = await createImageBitmap(file).catch(() => undefined);
  if (!picture)
    return { refused: `${file.name} calls itself a photograph, but cannot be read as one` };
  const scale = Math.min(1, LONGER_SIDE / Math.max(picture.width, picture.height));
  const canvas = document.createElement("canvas");
  canvas.width = Math.round(picture.width * scale);
  canvas.height = Math.round(picture.height * scale);
  const drawing = canvas.getContext("2d");
  if (!drawing) return { refused: "This browser cannot make the photograph smaller" };
  drawing.fillStyle = "white";
  drawing.fillRect(0, 0, canvas.width, canvas.height);
  drawing.drawImage(picture, 0, 0, canvas.width, canvas.height);
  picture.close();
  const address = canvas.toDataURL("image/jpeg", QUALITY);
  return { content: address.slice(address.indexOf(",") + 1) };
}
