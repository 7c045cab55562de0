// The transfer curve of sRGB, which Display P3 shares.

/** Codes 0 to 255 as linear light, 0 to 1 (IEC 61966-2-1; CSS Color 4, 10.2 and 10.4; WCAG 2.2 as corrected in 2021). */
export const LINEAR = Float64Array.from({ length: 256 }, (_, code) => {
  const value = code / 255;
  return value <= 0.04045 ? value / 12.92 : ((value + 0.055) / 1.055) ** 2.4;
});
