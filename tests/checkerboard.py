"""A checkerboard wall seen by a pinhole camera, rendered to a grey picture; and its corners found again in the
picture."""

import io
from dataclasses import dataclass
from functools import cache

import numpy as np
import numpy.typing as npt
from PIL import Image

SQUARE_M = 1.0
Grey = npt.NDArray[np.uint8]


@dataclass(frozen=True)
class Camera:
    """Looks at the board's middle from `away` m, turned and tilted by degrees; `focal` ÷ the picture's longer side."""

    turn: float
    tilt: float
    away: float
    focal: float
    size: tuple[float, float] = (960.0, 660.0)
    middle: tuple[float, float] = (4.0, 2.5)

    def _matrix(self) -> npt.NDArray[np.float64]:
        """Board plane (x, y, 1) to picture px."""
        a, b = np.radians(self.turn), np.radians(self.tilt)
        about_y = np.array([[np.cos(a), 0, np.sin(a)], [0, 1, 0], [-np.sin(a), 0, np.cos(a)]])
        about_x = np.array([[1, 0, 0], [0, np.cos(b), -np.sin(b)], [0, np.sin(b), np.cos(b)]])
        turned = about_x @ about_y
        # Board coordinates from its middle, y up; the picture's y runs down.
        origin = turned @ [-self.middle[0], self.middle[1], 0] + [0, 0, self.away]
        place = np.column_stack([turned[:, 0], -turned[:, 1], origin])
        f = self.focal * max(self.size)
        lens = np.array([[f, 0, self.size[0] / 2], [0, f, self.size[1] / 2], [0, 0, 1]])
        return np.asarray(lens @ place)

    def seen(self, x: float, y: float) -> tuple[float, float]:
        u, v, w = self._matrix() @ [x, y, 1]
        return float(u / w), float(v / w)


@cache
def photo_of_board(camera: Camera, columns: int, rows: int) -> Grey:
    """The picture, each pixel the mean of nine rays."""
    width, height = (int(s) for s in camera.size)
    back = np.linalg.inv(camera._matrix())
    out = np.zeros((height, width))
    for dx in (1 / 6, 1 / 2, 5 / 6):
        for dy in (1 / 6, 1 / 2, 5 / 6):
            u, v = np.arange(width) + dx, (np.arange(height) + dy)[:, None]
            x, y, w = (row[0] * u + row[1] * v + row[2] for row in back)
            x, y = x / w / SQUARE_M, y / w / SQUARE_M
            board = (x >= 0) & (x < columns) & (y >= 0) & (y < rows)
            dark = (np.floor(x) + np.floor(y)) % 2 == 0
            out += np.where(board, np.where(dark, 20.0, 235.0), 128.0)
    return np.asarray(np.clip(out / 9, 0, 255), dtype=np.uint8)


def found_corner(picture: Grey, near: tuple[float, float]) -> tuple[float, float]:
    """The corner near a place, to a fraction of a pixel: where the gradients round about cross (Förstner's
    operator)."""
    grey = picture.astype(float)
    x, y = near
    for _ in range(6):
        cx, cy, r = round(x), round(y), 6
        if not (r < cx < grey.shape[1] - r - 1 and r < cy < grey.shape[0] - r - 1):
            return x, y
        patch = grey[cy - r - 1 : cy + r + 2, cx - r - 1 : cx + r + 2]
        gx = (patch[1:-1, 2:] - patch[1:-1, :-2]) / 2
        gy = (patch[2:, 1:-1] - patch[:-2, 1:-1]) / 2
        px, py = np.meshgrid(np.arange(cx - r, cx + r + 1) + 0.5, np.arange(cy - r, cy + r + 1) + 0.5)
        a = np.array([[(gx * gx).sum(), (gx * gy).sum()], [(gx * gy).sum(), (gy * gy).sum()]])
        b = np.array([(gx * gx * px + gx * gy * py).sum(), (gx * gy * px + gy * gy * py).sum()])
        if np.linalg.det(a) < 1e-6:
            return x, y
        x, y = (float(v) for v in np.linalg.solve(a, b))
    return x, y


def as_jpeg(picture: Grey) -> bytes:
    out = io.BytesIO()
    Image.fromarray(picture).save(out, "JPEG", quality=92)
    return out.getvalue()
