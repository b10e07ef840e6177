export function preparedShelf(folder: string): Promise<void>;
