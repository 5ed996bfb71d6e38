/** The longest side of a photograph that is sent, pixels. */
const LONGEST_PX = 2400,
  QUALITY = 0.9;

/**
 * A photograph as it is sent: upright and no larger than is kept, as base64. What this browser cannot read is sent as it is; the server says
 * what is wrong with it.
 */
export async function shrink(file: Blob): Promise<string> {
  try {
    const picture = await createImageBitmap(file, { imageOrientation: "from-image" });
    const scale = Math.min(1, LONGEST_PX / Math.max(picture.width, picture.height));
    const canvas = document.createElement("canvas");
    canvas.width = Math.max(1, Math.round(picture.width * scale));
    canvas.height = Math.max(1, Math.round(picture.height * scale));
    const pen = canvas.getContext("2d")!;
    pen.fillStyle = "#fff";
    pen.fillRect(0, 0, canvas.width, canvas.height);
    pen.drawImage(picture, 0, 0, canvas.width, canvas.height);
    picture.close();
    const drawn = await new Promise<Blob | null>((done) => canvas.toBlob(done, "image/jpeg", QUALITY));
    return await base64(drawn ?? file);
  } catch {
    return await base64(file);
  }
}

async function base64(file: Blob): Promise<string> {
  const url = await new Promise<string>((done, fail) => {
    const reader = new FileReader();
    reader.onload = () => done(reader.result as string);
    reader.onerror = () => fail(new Error("The file could not be read."));
    reader.readAsDataURL(file);
  });
  return url.slice(url.indexOf(",") + 1);
}
