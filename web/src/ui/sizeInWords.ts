/** How large a file is: "840 KB", "3.2 MB". */
export const sizeInWords = ({ size }: Blob): string =>
  size < 1_000_000 ? `${Math.ceil(size / 1000)} KB` : `${(size / 1e6).toFixed(1)} MB`;
