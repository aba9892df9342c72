/** Seconds before and after contact that a comparison goes over. */
export const FROM = -0.6;
export const TO = 0.4;
