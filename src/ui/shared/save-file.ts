/** Hands bytes to the browser's download. */
export function saveBlob(name: string, blob: Blob) {
  const url = URL.createObjectURL(blob);
  const a = document.createElement("a");
  a.href = url;
  a.download = name;
  a.click();
  setTimeout(() => URL.revokeObjectURL(url), 1000);
}

/** Hands a text to the browser's download. */
export const saveFile = (name: string, data: string, type: string) => saveBlob(name, new Blob([data], { type }));

/** Draws an SVG text at twice its size and hands the picture to the browser's download. */
export function savePng(name: string, svg: string, width: number, height: number) {
  const url = URL.createObjectURL(new Blob([svg], { type: "image/svg+xml" }));
  const picture = new Image();
  picture.onload = () => {
    const canvas = document.createElement("canvas");
    canvas.width = width * 2;
    canvas.height = height * 2;
    canvas.getContext("2d")?.drawImage(picture, 0, 0, canvas.width, canvas.height);
    URL.revokeObjectURL(url);
    canvas.toBlob((blob) => {
      if (blob) saveBlob(name, blob);
    }, "image/png");
  };
  picture.src = url;
}
