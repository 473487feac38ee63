/* Going to another place in a clip. */
#include "clip.h"

#define LANDING_SECONDS 3 /* so far before what is wanted a seek without an index aims */

void hb_clip_skip_unreferenced(HbClip *clip, int64_t before)
{
    clip->skip_before = before;
}

void hb_clip_want(HbClip *clip, int64_t number)
{
    if (clip->wanted_count == MOST_WANTED)
        clip->wanted_count--;
    clip->wanted[clip->wanted_count++] = number;
}

static void want_only(HbClip *clip, int64_t number)
{
    clip->wanted_count = 0;
    hb_clip_want(clip, number);
}

/* Frames of this codec name those that they need by their place in the order of showing, so that none seem to be lost where a stretch is
 * left out; what leads up to the frame that stands alone is passed over when it is read. */
int hb_clip_goes_on(const HbClip *clip)
{
    return clip->codec->codec_id == AV_CODEC_ID_HEVC && !clip->codec->hw_device_ctx;
}

void hb_clip_leap(HbClip *clip, int64_t number)
{
    want_only(clip, number);
    if (!hb_clip_goes_on(clip))
        avcodec_flush_buffers(clip->codec);
}

int hb_clip_seek(HbClip *clip, int64_t number)
{
    int64_t loop = loop_of(clip, number), within = within_loop(clip, number);
    int64_t moment = moment_of(clip, within);
    int code;
    begin_call(clip);
    if (clip->span == 0 && loop > 0) {
        clip->sought = 1;
        if ((code = end_loop(clip)) < 0)
            return code;
    }
    /* Without an index seeking ends anywhere near, so it aims well before; what lies between is read and passed over. */
    clip->landing = within > 0 && without_index(clip);
    if (clip->landing)
        moment -= av_rescale_q(LANDING_SECONDS, (AVRational){1, 1}, clip->stream->time_base);
    code = within > 0 && moment > clip->start ? av_seek_frame(clip->format, clip->stream->index, moment, AVSEEK_FLAG_BACKWARD) : -1;
    if (code < 0) {
        clip->landing = 0;
        if ((code = rewind_file(clip)) < 0)
            return code;
    }
    avcodec_flush_buffers(clip->codec);
    clip->draining = 0;
    clip->loop = loop;
    clip->sought = 1;
    clip->read_in_loop = 0;
    want_only(clip, number);
    clip->next_number = number;
    clip->highest = number - 1;
    return 0;
}
