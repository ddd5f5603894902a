import { describe, expect, it } from 'vitest';
import { engagementOf, engagementRate } from './engagement';

describe('engagement', () => {
  it('is likes, comments, shares and saves together', () => {
    expect(engagementOf({ likes: 10, comments: 2, shares: 1, saves: 3, clicks: 99, follows: 9 })).toBe(16);
    expect(engagementOf({ likes: null, comments: 2 })).toBe(2);
    expect(engagementOf({ reach: 100, clicks: 4 })).toBeNull();
  });

  it('is set against reach, else against views, and says which', () => {
    expect(engagementRate({ likes: 5, reach: 100, views: 500 })).toEqual({ value: 0.05, of: 'reach' });
    expect(engagementRate({ likes: 5, reach: null, views: 500 })).toEqual({ value: 0.01, of: 'views' });
    expect(engagementRate({ likes: 5, reach: 0, views: 0 })).toBeNull();
    expect(engagementRate({ reach: 100 })).toBeNull();
  });
});
