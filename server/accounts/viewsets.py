"""Signing in and out."""

from __future__ import annotations

from typing import Any

from django.contrib.auth import authenticate, login, logout
from django.http import HttpRequest, JsonResponse
from drf_spectacular.utils import extend_schema
from rest_framework.exceptions import ValidationError
from rest_framework.permissions import AllowAny
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.throttling import BaseThrottle, ScopedRateThrottle
from rest_framework.views import APIView

from server.accounts.serializers import CredentialsSerializer, SessionSerializer


def locked_out(request: HttpRequest, *given: Any, **more: Any) -> JsonResponse:
    """What somebody is answered who has guessed too often, whatever was asked."""
    detail = "Too many wrong passwords. Try again in a quarter of an hour."
    return JsonResponse({"detail": detail}, status=429)


class SessionView(APIView):
    """Who is signed in."""

    permission_classes = [AllowAny]
    throttle_scope = "sign-in"

    def get_throttles(self) -> list[BaseThrottle]:
        return [ScopedRateThrottle()] if self.request.method == "POST" else []

    @extend_schema(responses=SessionSerializer)
    def get(self, request: Request) -> Response:
        return Response({"username": request.user.get_username()})

    @extend_schema(request=CredentialsSerializer, responses=SessionSerializer)
    def post(self, request: Request) -> Response:
        given = CredentialsSerializer(data=request.data)
        given.is_valid(raise_exception=True)
        user = authenticate(request._request, **given.validated_data)
        if user is None:
            raise ValidationError("Wrong name or password. Try again.")
        login(request, user)
        return Response({"username": user.get_username()})

    @extend_schema(request=None, responses=SessionSerializer)
    def delete(self, request: Request) -> Response:
        logout(request)
        return Response({"username": ""})
