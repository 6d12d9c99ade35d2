/** Hands a file to the browser's download. */
export function saveFile(name: string, data: string, type: string) {
  const url = URL.createObjectURL(new Blob([data], { type }));
  const a = document.createElement("a");
  a.href = url;
  a.download = name;
  a.click();
  setTimeout(() => URL.revokeObjectURL(url), 1000);
}

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
      if (!blob) return;
      const at = URL.createObjectURL(blob);
      const a = document.createElement("a");
      a.href = at;
      a.download = name;
      a.click();
      setTimeout(() => URL.revokeObjectURL(at), 1000);
    }, "image/png");
  };
  picture.src = url;
}
