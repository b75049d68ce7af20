const LONGEST_SIDE = 1600;
const QUALITY = 0.85;

/** A photo as the phone took it, upright and no larger than anybody looks at: base64 of a JPEG. */
export async function smallerPhoto(file: File): Promise<string> {
  const picture = await createImageBitmap(file, { imageOrientation: "from-image" }).catch(() => null);
  // What the browser cannot read is sent as it is: the server says what is wrong with it.
  if (picture === null) return asBase64(file);
  const scale = Math.min(1, LONGEST_SIDE / Math.max(picture.width, picture.height));
  const canvas = document.createElement("canvas");
  canvas.width = Math.max(1, Math.round(picture.width * scale));
  canvas.height = Math.max(1, Math.round(picture.height * scale));
  canvas.getContext("2d")?.drawImage(picture, 0, 0, canvas.width, canvas.height);
  picture.close();
  return canvas.toDataURL("image/jpeg", QUALITY);
}

function asBase64(file: File): Promise<string> {
  return new Promise((resolve, reject) => {
    const reader = new FileReader();
    reader.onload = () => resolve(String(reader.result));
    reader.onerror = () => reject(new Error("This photo cannot be read; choose another."));
    reader.readAsDataURL(file);
  });
}
