/** @throws Error when the browser has no room for it */
export async function base64(blob: Blob): Promise<string> {
  const address = await new Promise<string>((resolve, reject) => {
    const reader = new FileReader();
    reader.onload = () => resolve(String(reader.result));
    reader.onerror = () => reject(new Error('the browser has no room for it.'));
    reader.readAsDataURL(blob);
  });
  return address.slice(address.indexOf(',') + 1);
}
