/** Where a device's camera gives its picture; a key or a tap elsewhere opens it. */
export const TakePhoto = ({ onTaken }: { onTaken: (picture: File) => void }) => (
  <input
    id="take-photo"
    type="file"
    accept="image/*"
    capture="environment"
    aria-label="A photograph"
    className="sr-only"
    tabIndex={-1}
    onChange={(e) => {
      const picture = e.target.files?.[0];
      e.target.value = "";
      if (picture) onTaken(picture);
    }}
  />
);

export const openCamera = () => document.querySelector<HTMLInputElement>("#take-photo")?.click();
