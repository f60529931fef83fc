import { useState } from 'react';
import { goTo } from '../kit/leave';
import { callApi, failureText } from '../kit/request';
import { useOnce } from '../kit/use-once';

/** Makes a study for practice and opens it: a guide leads through its ten steps. */
export function PracticeStart() {
  const [message, setMessage] = useState<string | null>(null);
  const once = useOnce();
  const start = async () => {
    try {
      const { study_id } = await callApi<{ study_id: string }>('POST', '/studies', {
        title: 'My first study',
        intent: 'machines',
        labels: ['practice'],
      });
      await goTo(`/studies/${study_id}/question`);
    } catch (error) {
      setMessage(failureText(error, 'The practice study was not created.'));
    }
  };
  return (
    <>
      <button type="button" className="action" onClick={() => once('start', start)}>
        Start practice study
      </button>
      {message !== null && (
        <span role="alert" className="ml-2 text-warn">
          {message}
        </span>
      )}
    </>
  );
}
