import { Select, Slider, Switch } from 'antd';
import { useAddress } from '../shell/address.ts';
import { DeviceChoice, useDevice } from './device.tsx';

/** Running text as a reader has it: on a device, in a size, a typeface and margins of their own; in step with the page of the layout. */
export function ReadingView({
  address,
  isBook,
  anchor,
  label,
  fresh,
}: {
  address: string;
  isBook: boolean;
  anchor: string;
  label: string;
  fresh: string;
}) {
  const [search, change] = useAddress();
  const { device, host, scale } = useDevice();
  const size = Math.min(200, Math.max(60, Number(search.get('size')) || 100));
  const night = search.get('night') === '1';
  const typeface = search.get('typeface') ?? 'own';
  const margin = Math.min(4, Math.max(0, Number(search.get('margin') ?? 1)));
  const query = new URLSearchParams({ size: String(size), night: night ? '1' : '0', typeface, margin: String(margin), made: fresh });
  return (
    <div className="reading">
      <div className="reading-settings">
        <DeviceChoice />
        {isBook && (
          <>
            <label>
              Text {size} %
              <Slider
                ariaLabelForHandle="Size of text"
                min={60}
                max={200}
                step={10}
                value={size}
                onChange={(v) => change({ size: String(v) })}
              />
            </label>
            <label>
              Margins
              <Slider
                ariaLabelForHandle="Margins"
                min={0}
                max={4}
                step={0.5}
                value={margin}
                onChange={(v) => change({ margin: String(v) })}
              />
            </label>
            <Select
              aria-label="Typeface"
              value={typeface}
              onChange={(v) => change({ typeface: v })}
              options={[
                { value: 'own', label: 'The book’s typefaces' },
                { value: 'serif', label: 'With serifs' },
                { value: 'sans', label: 'Without serifs' },
              ]}
            />
            <label>
              Night <Switch size="small" aria-label="Night" checked={night} onChange={(v) => change({ night: v ? '1' : '0' })} />
            </label>
          </>
        )}
      </div>
      <div className="reading-room" ref={host}>
        <div className="device" style={{ width: device.width * scale + 20, height: device.height * scale + 20 }}>
          <iframe
            title={label}
            sandbox=""
            src={`${address}?${query.toString()}#${anchor}`}
            style={{
              width: device.width,
              height: device.height,
              transform: `scale(${scale})`,
              ...(device.ink && { filter: 'grayscale(1) contrast(0.9)' }),
            }}
          />
        </div>
      </div>
    </div>
  );
}
