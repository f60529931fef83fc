import { useState, type DragEvent } from 'react';

/** Whether files are held over an element, and what lets them be dropped on it. */
export interface Drop {
  isOver: boolean;
  handlers: {
    onDragOver: (event: DragEvent) => void;
    onDragLeave: () => void;
    onDrop: (event: DragEvent) => void;
  };
}

/** Lets files be dropped on an element. */
export function useDrop(take: (files: FileList) => void): Drop {
  const [isOver, setOver] = useState(false);
  return {
    isOver,
    handlers: {
      onDragOver: (event) => {
        event.preventDefault();
        setOver(true);
      },
      onDragLeave: () => setOver(false),
      onDrop: (event) => {
        event.preventDefault();
        setOver(false);
        take(event.dataTransfer.files);
      },
    },
  };
}
