'use client';
import { useEffect, useState } from 'react';
import { microphones } from '../../audio/input';
import { Choice } from '../kit/Choice';
import { chooseMicrophone, chosenMicrophone } from './sources';

/** Which microphone is listened to, where there are several; the choice is remembered on this device. */
export function MicrophoneChoice({ onChange, disabled }: { onChange: () => void; disabled: boolean }) {
  const [found, setFound] = useState<{ id: string; name: string }[]>([]);
  const [chosen, setChosen] = useState('');
  useEffect(() => {
    const look = () =>
      void microphones().then((all) => {
        setFound(all);
        setChosen(chosenMicrophone() ?? all[0]?.id ?? '');
      });
    look();
    navigator.mediaDevices?.addEventListener('devicechange', look);
    return () => navigator.mediaDevices?.removeEventListener('devicechange', look);
  }, [disabled]);
  if (found.length < 2) return null;
  return (
    <Choice
      label="Which microphone"
      value={chosen}
      options={found.map((d) => [d.id, d.name] as const)}
      disabled={disabled}
      onChange={(id) => {
        chooseMicrophone(id);
        setChosen(id);
        onChange();
      }}
    />
  );
}
