import { useEffect, useRef, useState } from 'react';
import type { RefObject } from 'react';
import { Segmented } from 'antd';
import { useAddress } from '../shell/address.ts';

/** Devices by the size of their screens in CSS pixels (common practice), and whether they show colours. */
const DEVICES = {
  phone: { label: 'Phone', width: 390, height: 760, ink: false },
  tablet: { label: 'Tablet', width: 768, height: 1024, ink: false },
  turned: { label: 'Tablet, turned', width: 1024, height: 768, ink: false },
  ink: { label: 'E-ink', width: 600, height: 800, ink: true },
} as const;
type Device = keyof typeof DEVICES;
const isDevice = (v: string | null): v is Device => v !== null && v in DEVICES;
const named = (asked: string | null): Device => (isDevice(asked) ? asked : 'phone');

/** The device that was chosen, and how large it is shown where there is room for it. */
export function useDevice(): { device: (typeof DEVICES)[Device]; host: RefObject<HTMLDivElement | null>; scale: number } {
  const [search] = useAddress();
  const host = useRef<HTMLDivElement>(null);
  const [room, setRoom] = useState({ width: 500, height: 600 });
  useEffect(() => {
    const observer = new ResizeObserver(([e]) => setRoom({ width: e!.contentRect.width, height: e!.contentRect.height }));
    observer.observe(host.current!);
    return () => observer.disconnect();
  }, []);
  const device = DEVICES[named(search.get('device'))];
  return { device, host, scale: Math.min(1, (room.width - 28) / device.width, (room.height - 28) / device.height) };
}

/** Chooses the device on which a book is seen; kept in the address. */
export function DeviceChoice() {
  const [search, change] = useAddress();
  return (
    <Segmented
      aria-label="Device"
      value={named(search.get('device'))}
      onChange={(v) => change({ device: v })}
      options={Object.entries(DEVICES).map(([value, d]) => ({ value: value as Device, label: d.label }))}
    />
  );
}
